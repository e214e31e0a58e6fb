<?php

declare(strict_types=1);

namespace Cartella\Standins;

/**
 * A transcription desk that takes jobs in and answers them from the truth of the demo production: each line's words with even times over
 * the line. A job is a file in a folder; it is done with the second question about it.
 */
final class TranscriptionDesk
{
    private const TICKS_A_SAMPLE = 14_700;

    public function __construct(private readonly string $truth, private readonly string $folder, private readonly ?string $token) {}

    /** @param  array<string, mixed>  $form */
    public function answer(string $method, string $path, string $authorization, array $form): void
    {
        if ($this->token !== null && !hash_equals("Bearer $this->token", $authorization)) {
            $this->say(401, ['reason' => 'This token opens nothing here.']);

            return;
        }
        if ($method === 'POST' && $path === '/jobs') {
            $id = bin2hex(random_bytes(12));
            @mkdir($this->folder, 0700, true);
            file_put_contents(
                "$this->folder/$id",
                json_encode(['name' => (string) ($form['name'] ?? ''), 'asked' => 0], JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE),
            );
            $this->say(202, ['id' => $id]);
        } elseif (preg_match('~\A/jobs/([0-9a-f]{24})\z~', $path, $part) === 1 && is_file("$this->folder/$part[1]")) {
            $file = "$this->folder/$part[1]";
            if ($method === 'DELETE') {
                unlink($file);
                $this->say(204, []);

                return;
            }
            $job = json_decode((string) file_get_contents($file), true);
            $job['asked']++;
            file_put_contents($file, json_encode($job, JSON_THROW_ON_ERROR));
            $this->say(
                200,
                $job['asked'] < 2
                    ? ['state' => 'running', 'progress' => 0.5]
                    : [
                        'state' => 'done',
                        'progress' => 1,
                        'engine' => 'transcription desk',
                        'model' => 'truth',
                        'words' => $this->words($job['name']),
                    ],
            );
        } else {
            $this->say(404, ['reason' => 'There is no such job.']);
        }
    }

    /** @return list<array{text: string, start_ticks: int, end_ticks: int, speaker: string, confidence: float}> */
    private function words(string $name): array
    {
        $truth = json_decode((string) @file_get_contents($this->truth), true);
        $words = [];
        foreach (is_array($truth) ? $truth['clips'] ?? [] : [] as $clip) {
            foreach (($clip['name'] ?? null) === $name ? $clip['words'] ?? [] : [] as $line) {
                $said = preg_split('/\s+/', $line['text']) ?: [];
                $length = ($line['to_sample'] - $line['from_sample']) / count($said);
                foreach ($said as $at => $text) {
                    $words[] = [
                        'text' => $text,
                        'start_ticks' => (int) (($line['from_sample'] + $at * $length) * self::TICKS_A_SAMPLE),
                        'end_ticks' => (int) (($line['from_sample'] + ($at + 1) * $length) * self::TICKS_A_SAMPLE),
                        'speaker' => ucfirst($line['who']),
                        'confidence' => 0.99,
                    ];
                }
            }
        }

        return $words;
    }

    /** @param  array<string, mixed>  $answer */
    private function say(int $status, array $answer): void
    {
        http_response_code($status);
        header('Content-Type: application/json');
        echo $status === 204 ? '' : json_encode($answer, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE);
    }
}
