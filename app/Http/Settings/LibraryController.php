<?php

declare(strict_types=1);

namespace App\Http\Settings;

use App\Domain\Footage\Library;
use App\Http\Controller;
use App\Http\Settings\Requests\LibraryRequest;
use App\Http\Shell\Answers\DoneAnswer;
use App\Models\Production;
use Illuminate\Http\JsonResponse;

/** Whether all productions see the imports of this one. */
final class LibraryController extends Controller
{
    public function share(LibraryRequest $request, Production $production): JsonResponse
    {
        Library::share($production, self::who($request), $request->boolean('is_library'));

        return new JsonResponse(new DoneAnswer());
    }
}
