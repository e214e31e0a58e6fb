<?php

declare(strict_types=1);

namespace App\Http;

use App\Models\Device;
use App\Models\Production;
use App\Models\User;
use App\Support\Problem;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Http\UploadedFile;
use Symfony\Component\HttpFoundation\HeaderUtils;

/** What every controller shares: the person who asks. */
abstract class Controller
{
    protected static function who(Request $request): User
    {
        $user = $request->user();

        return $user instanceof User ? $user : throw new \LogicException('A route without a sign-in asks for its user.');
    }

    /**
     * A page to print, shown in the browser, or a table to keep.
     *
     * @param  'pdf'|'csv'  $format
     */
    protected static function document(string $bytes, string $name, string $format): Response
    {
        return new Response($bytes, 200, [
            'Content-Type' => $format === 'pdf' ? 'application/pdf' : 'text/csv; charset=utf-8',
            'Content-Disposition' => HeaderUtils::makeDisposition(
                $format === 'pdf' ? 'inline' : 'attachment',
                str_replace(['/', '\\'], '_', $name),
                (string) preg_replace('/[^\x20-\x7e]|[%\/\\\\]/', '_', $name),
            ),
        ]);
    }

    /** A PDF that a worker makes; a tab that is opened on it asks again by itself until it is there. */
    protected static function made(?string $bytes, string $name): Response
    {
        if ($bytes !== null) {
            return self::document($bytes, $name, 'pdf');
        }
        $title = e($name);

        return new Response(
            "<!doctype html><meta charset=\"utf-8\"><title>$title</title>" .
                "<p role=\"status\">$title is being made. It shows up here by itself.</p>",
            202,
            ['Refresh' => '1', 'Content-Type' => 'text/html; charset=utf-8', 'Cache-Control' => 'no-store'],
        );
    }

    /**
     * The one file that a form sent along.
     *
     * @throws Problem if none came through
     */
    protected static function sent(Request $request): UploadedFile
    {
        $sent = $request->file('file');
        if (!($sent instanceof UploadedFile) || !$sent->isValid()) {
            throw Problem::refused('file.missing', 'No file came through.', 'Choose a file of at most 64 MB and try again.');
        }

        return $sent;
    }

    /** @throws Problem if the production has no such device */
    protected static function deviceOf(Production $production, string $letter): Device
    {
        return $production->devices()->where('letter', $letter)->first() ??
            throw Problem::refused('device.unknown', 'There is no such device in this production.', 'Choose one of the list.');
    }
}
