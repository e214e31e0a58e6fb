<?php

declare(strict_types=1);

namespace App\Http\Shell;

use App\Domain\Footage\ClipMedia;
use App\Http\Controller;
use App\Models\Clip;
use App\Models\Production;
use App\Support\Problem;
use Illuminate\Http\Response;

/** Lets a clip's proxy, pictures and peaks out; nginx sends the bytes, with ranges, after this check. */
final class MediaController extends Controller
{
    private const FILES = [
        'proxy' => ['proxy.mp4', 'video/mp4'],
        'synced' => ['synced.mp4', 'video/mp4'],
        'thumb-1' => ['thumb-1.jpg', 'image/jpeg'],
        'thumb-2' => ['thumb-2.jpg', 'image/jpeg'],
        'thumb-3' => ['thumb-3.jpg', 'image/jpeg'],
        'still' => ['still.jpg', 'image/jpeg'],
        'peaks' => ['peaks', 'application/octet-stream'],
    ];

    public function show(Production $production, Clip $clip, string $what): Response
    {
        [$name, $type] = self::FILES[$what] ?? throw Problem::missing('That', 'Ask for a proxy, a picture or the peaks.');
        $file = ClipMedia::folder($clip) . '/' . $name;
        if (!is_file($file)) {
            throw Problem::missing("The $what of $clip->name", 'It is made when the card is catalogued; wait, or catalogue it again.');
        }

        return new Response('', 200, [
            'X-Accel-Redirect' => config('cartella.accel') . substr($file, strlen((string) config('cartella.proxies')) + 1),
            'Content-Type' => $type,
            // The address carries the version of the media, so what came once may be kept.
            'Cache-Control' => 'private, max-age=86400',
        ]);
    }
}
