<?php

declare(strict_types=1);

namespace App\Http\Log;

use App\Domain\Log\ReadSlates;
use App\Domain\Log\SetPatterns;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Log\Answers\PatternsAnswer;
use App\Http\Log\Answers\SlatePreviewAnswer;
use App\Http\Log\Requests\SetPatternsRequest;
use App\Http\Log\Requests\TryPatternsRequest;
use App\Http\Shell\Answers\DoneAnswer;
use App\Models\Production;
use App\Models\ShootDay;
use Cartella\Core\Slate\SlateReader;
use Illuminate\Http\JsonResponse;

/** Patterns by which slates are read and names are given. */
final class PatternsController extends Controller
{
    public function tryPatterns(TryPatternsRequest $request, Production $production, ShootDay $day, ReadSlates $read): JsonResponse
    {
        $reader = SlateReader::of(array_values($request->validated('patterns')), $production->slate_style);

        return new JsonResponse(Answers::make(SlatePreviewAnswer::class, ['clips' => $read->preview($day, $reader)]));
    }

    public function setPatterns(SetPatternsRequest $request, Production $production, string $which, SetPatterns $set): JsonResponse
    {
        $set(
            $production,
            self::who($request),
            $which === 'slate' ? 'slate_patterns' : 'name_patterns',
            array_values($request->validated('was')),
            array_values($request->validated('now')),
        );

        return new JsonResponse(new DoneAnswer());
    }

    public function namePatterns(Production $production): JsonResponse
    {
        return new JsonResponse(new PatternsAnswer($production->namePatterns()));
    }
}
