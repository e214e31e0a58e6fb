<?php

declare(strict_types=1);

namespace App\Http\Shell;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Http\Controller;
use App\Models\Clip;
use App\Models\Production;
use App\Support\Problem;
use Illuminate\Http\Response;

/**
 * Lets a clip's proxy, pictures and peaks out: after this check nginx sends the bytes, with ranges, or the browser is sent to a signed
 * address of the disk where they lie.
 */
final class MediaController extends Controller
{
    public function show(Production $production, Clip $clip, string $what): Response
    {
        return self::answer($clip, $what);
    }

    /**
     * The same for those who were let in otherwise.
     *
     * @throws Problem if there is no such file
     */
    public static function answer(Clip $clip, string $what): Response
    {
        $file = MediaFile::asked($what) ?? throw Problem::missing('That', 'Ask for a proxy, a picture, a channel or the peaks.');
        $channel = $file === MediaFile::Channel ? (int) substr($what, strlen('channel-')) : 0;
        $media = MediaFolder::of($clip);
        if (!$media->has($file, $channel)) {
            throw Problem::missing("The $what of $clip->name", 'It is made when the card is catalogued; wait, or catalogue it again.');
        }
        // The address carries the version of the media, so what came once may be kept.
        $kept = ['Cache-Control' => 'private, max-age=86400'];
        $accel = $media->accel($file, $channel);

        return $accel === null
            ? new Response('', 302, ['Location' => $media->signed($file, $channel), 'Cache-Control' => 'private, max-age=600'])
            : new Response('', 200, ['X-Accel-Redirect' => $accel, 'Content-Type' => $file->type()] + $kept);
    }
}
