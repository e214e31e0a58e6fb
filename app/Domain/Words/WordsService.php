<?php

declare(strict_types=1);

namespace App\Domain\Words;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Models\Clip;
use App\Models\Production;
use App\Models\Task;
use App\Models\User;
use App\Support\Audit;
use App\Support\Problem;
use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Media\Ffmpeg;
use Cartella\Core\Process;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Words\CueReader;
use Cartella\Core\Words\Exception\UnableToReadWords;
use Cartella\Core\Words\Transcript as Words;
use GuzzleHttp\Psr7\Utils;
use Illuminate\Http\Client\ConnectionException;
use Illuminate\Http\Client\PendingRequest;
use Illuminate\Http\Client\Response;
use Illuminate\Support\Facades\Http;
use Illuminate\Support\Facades\Log;
use Illuminate\Support\Sleep;

/**
 * Another service that finds words, behind the contract of docs/words-service.md: a job is sent, asked about until it is done, and given
 * up where a person stops it. What it answers is read as hostile.
 */
final class WordsService
{
    private const TRIES = 4;

    private const ASK_EVERY = 2;

    /** Bytes of an answer. */
    private const LARGEST = CueReader::LARGEST;

    /** Seconds for a job at least, and times the length of its sound. */
    private const PATIENCE = 600;

    private const TIMES = 4;

    /** @param  array{url: string, token: string|null}|null  $service  null takes it away */
    public static function set(Production $production, User $user, ?array $service): void
    {
        $production->words_service = $service;
        $production->save();
        Audit::write($service === null ? 'words.service_removed' : 'words.service_set', $user->id, $production->id, [
            'url' => $service['url'] ?? null,
        ]);
    }

    /**
     * @return array{url: string, token: string|null}
     *
     * @throws Problem where the production has none
     */
    public static function of(Production $production): array
    {
        return $production->words_service ??
            throw Problem::refused(
                'words.no_service',
                'No service is set up for this production.',
                'Set one up, or have the words found on this machine.',
            );
    }

    /**
     * @param  callable(int): void  $progress  gets ticks that are done; throws to stop
     *
     * @throws Problem
     */
    public function find(Clip $clip, string $language, Task $task, callable $progress): Words
    {
        $service = self::of($clip->production);
        $sound = self::sound($clip);
        try {
            $sent = self::ask(
                $service,
                static fn(PendingRequest $http): Response => $http
                    ->timeout(600)
                    // Opened for each try, and never whole in memory: it may be of many hours.
                    ->attach('sound', Utils::tryFopen($sound, 'rb'), 'sound.flac')
                    ->post('jobs', [
                        'name' => $clip->name,
                        'language' => $language,
                        'channels' => implode(
                            "\n",
                            array_map(static fn(array $one): string => (string) $one['name'], $clip->worthHearing()),
                        ),
                        'reference' => "$task->ulid.$clip->ulid",
                    ]),
            );
        } finally {
            @unlink($sound);
        }
        $job = $sent->json('id');
        if (!is_string($job) || preg_match('/\A[A-Za-z0-9_-]{1,100}\z/', $job) !== 1) {
            throw self::nonsense($service, 'it named no job');
        }
        $asks = intdiv(max(self::PATIENCE, self::TIMES * intdiv((int) $clip->duration_ticks, Ticks::PER_SECOND)), self::ASK_EVERY);
        try {
            for (; $asks > 0; $asks--) {
                $answer = self::ask($service, static fn(PendingRequest $http): Response => $http->timeout(30)->get("jobs/$job"));
                $state = $answer->json('state');
                if ($state === 'done') {
                    return self::read($service, $answer, $clip);
                }
                if ($state === 'failed') {
                    $why = $answer->json('reason');
                    throw Problem::refused(
                        'words.service_failed',
                        'The service could not find the words' .
                            (is_string($why) ? ': ' . rtrim(mb_substr(mb_scrub($why), 0, 120), '.') : '') .
                            '.',
                        'Have them found on this machine instead.',
                    );
                }
                if (!in_array($state, ['waiting', 'running'], true)) {
                    throw self::nonsense($service, 'it did not say how far it is');
                }
                $share = $answer->json('progress');
                $progress((int) (max(0.0, min(1.0, is_numeric($share) ? (float) $share : 0.0)) * (int) $clip->duration_ticks));
                Sleep::for(self::ASK_EVERY)->seconds();
            }
            throw Problem::refused(
                'words.service_slow',
                'The service took too long.',
                'Try again later, or have the words found on this machine.',
            );
        } catch (\Throwable $stopped) {
            // It need not go on for nobody.
            try {
                self::http($service)
                    ->timeout(5)
                    ->delete("jobs/$job");
            } catch (\Throwable $away) {
                Log::info('A job of a words service could not be ended.', ['cause' => $away->getMessage()]);
            }
            throw $stopped;
        }
    }

    /** @param  array{url: string, token: string|null}  $service */
    private static function read(array $service, Response $answer, Clip $clip): Words
    {
        $body = $answer->body();
        if (strlen($body) > self::LARGEST) {
            throw self::nonsense($service, 'its answer is longer than a clip could say');
        }
        if ($answer->json('words') === []) {
            return new Words([], 'service', 'none');
        }
        try {
            ['transcript' => $words, 'problems' => $problems] = CueReader::read($body);
        } catch (UnableToReadWords $trouble) {
            throw self::nonsense($service, rtrim(lcfirst($trouble->getMessage()), '.'));
        }
        if ($problems !== []) {
            Log::info('Words of a service were left out.', [
                'clip' => $clip->ulid,
                'count' => count($problems),
                'first' => $problems[0]->reason,
            ]);
        }
        $length = (int) $clip->duration_ticks;
        $inside = array_values(
            array_filter(
                $words->words,
                static fn($word): bool => $word->startTicks < $length && $word->endTicks <= $length + Ticks::PER_SECOND,
            ),
        );
        if ($inside === []) {
            throw self::nonsense($service, 'its words lie outside the clip');
        }

        return new Words($inside, $words->engine === '' ? 'service' : $words->engine, $words->model === '' ? 'service' : $words->model);
    }

    /**
     * @param  array{url: string, token: string|null}  $service
     * @param  callable(PendingRequest): Response  $send
     */
    private static function ask(array $service, callable $send): Response
    {
        $why = '';
        for ($try = 0; $try < self::TRIES; $try++) {
            if ($try > 0) {
                Sleep::for(2 ** $try)->seconds();
            }
            try {
                $answer = $send(self::http($service));
                if ($answer->successful()) {
                    return $answer;
                }
                $why = 'it answered with status ' . $answer->status();
                if ($answer->status() < 500 && $answer->status() !== 429) {
                    break;
                }
            } catch (ConnectionException $away) {
                Log::info('A words service cannot be reached.', ['cause' => $away->getMessage()]);
                $why = 'it cannot be reached';
            }
        }
        throw Problem::refused(
            'words.service_away',
            "The service at {$service['url']} did not answer: $why.",
            'Try again later, or have the words found on this machine.',
        );
    }

    /** @param  array{url: string, token: string|null}  $service */
    private static function http(array $service): PendingRequest
    {
        $http = Http::baseUrl(rtrim($service['url'], '/'))
            ->connectTimeout(5)
            ->acceptJson()
            ->withOptions(['allow_redirects' => false]);

        return $service['token'] === null ? $http : $http->withToken($service['token']);
    }

    /** @param  array{url: string, token: string|null}  $service */
    private static function nonsense(array $service, string $why): Problem
    {
        return Problem::refused(
            'words.service_nonsense',
            "The service at {$service['url']} answered what cannot be used: $why.",
            'Ask whoever runs it, or have the words found on this machine.',
        );
    }

    /** The channels that are worth hearing, side by side, at 16 kHz. */
    private static function sound(Clip $clip): string
    {
        $media = MediaFolder::of($clip);
        $target = sys_get_temp_dir() . '/cartella-sound-' . bin2hex(random_bytes(6)) . '.flac';
        $command = Ffmpeg::command();
        $filters = $labels = '';
        $channels = array_slice($clip->worthHearing(), 0, 8);
        foreach ($channels as $number => $channel) {
            array_push($command, ...Ffmpeg::input($media->read(MediaFile::Channel, (int) $channel['index'])));
            $filters .= "[$number:a:0]pan=1c|c0=c0[c$number];";
            $labels .= "[c$number]";
        }
        // One by one and then together: merging looks for a layout of all of them otherwise, and does not always find one.
        $filter = $filters . (count($channels) === 1 ? '[c0]anull[out]' : "{$labels}amerge=inputs=" . count($channels) . '[out]');
        $run = Process::run(
            [...$command, '-filter_complex', $filter, '-map', '[out]', '-ar', '16000', '-c:a', 'flac', $target],
            null,
            3600,
        );
        if ($run['status'] !== 0) {
            throw UnableToReadMedia::program('ffmpeg', $clip->name, $run['error']);
        }

        return $target;
    }
}
