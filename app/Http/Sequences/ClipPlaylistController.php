<?php

declare(strict_types=1);

namespace App\Http\Sequences;

use App\Domain\Sequences\Playlist;
use App\Http\Controller;
use App\Http\Sequences\Answers\PlaylistAnswer;
use App\Models\Clip;
use App\Models\Production;
use Illuminate\Http\JsonResponse;

/** What plays when one clip does: its pictures, and what is heard under them by the line-up as it is now. */
final class ClipPlaylistController extends Controller
{
    public function show(Production $production, Clip $clip): JsonResponse
    {
        return new JsonResponse(PlaylistAnswer::of(Playlist::ofClip($clip->setRelation('production', $production))));
    }
}
