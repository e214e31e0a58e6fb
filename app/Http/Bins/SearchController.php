<?php

declare(strict_types=1);

namespace App\Http\Bins;

use App\Domain\Bins\Search;
use App\Http\Bins\Answers\SearchHitAnswer;
use App\Http\Bins\Answers\SearchResultAnswer;
use App\Http\Controller;
use App\Models\Production;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** The search that every page has. */
final class SearchController extends Controller
{
    /** Characters of what is looked for. */
    private const LONGEST = 100;

    public function __invoke(Request $request, Production $production, Search $search): JsonResponse
    {
        $text = trim((string) $request->query('q'));
        if ($text === '' || mb_strlen($text) > self::LONGEST || !mb_check_encoding($text, 'UTF-8')) {
            return new JsonResponse(new SearchResultAnswer(null, []));
        }
        ['meant' => $meant, 'hits' => $hits] = $search->of($production, $text);

        return new JsonResponse(
            new SearchResultAnswer($meant, array_map(static fn(array $hit): SearchHitAnswer => new SearchHitAnswer(...$hit), $hits)),
        );
    }
}
