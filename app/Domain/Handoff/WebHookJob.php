<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Models\WebHook;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;
use Illuminate\Support\Facades\Http;
use Illuminate\Support\Facades\Log;

/** One message to one address, signed; tried again for about a day. What an address answers is not read. */
final class WebHookJob implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 8;

    public int $timeout = 30;

    /** @param  array<string, mixed>  $body */
    public function __construct(public readonly int $hookId, public readonly array $body) {}

    /** @return list<int> seconds */
    public function backoff(): array
    {
        return [10, 60, 300, 1800, 7200, 21600, 43200];
    }

    public function handle(): void
    {
        $hook = WebHook::query()->find($this->hookId);
        if ($hook === null) {
            return;
        }
        $body = json_encode(
            $this->body,
            JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_INVALID_UTF8_SUBSTITUTE,
        );
        $moment = now()->getTimestamp();
        try {
            $status = Http::timeout(10)
                ->connectTimeout(5)
                ->withOptions(['allow_redirects' => false])
                ->withHeaders([
                    'X-Cartella-Time' => (string) $moment,
                    'X-Cartella-Signature' => 'sha256=' . WebHooks::signature($hook->secret, $moment, $body),
                ])
                ->withBody($body, 'application/json')
                ->post($hook->url)
                ->status();
            $trouble = $status >= 200 && $status < 300 ? null : "It answered with status $status.";
        } catch (\Throwable $away) {
            $trouble = 'It cannot be reached.';
            Log::info('A web hook cannot be reached.', ['hook' => $hook->ulid, 'cause' => $away->getMessage()]);
        }
        $hook->update(['trouble' => $trouble] + ($trouble === null ? ['told_at' => now()] : []));
        if ($trouble !== null) {
            $this->attempts() < $this->tries ? $this->release($this->backoff()[$this->attempts() - 1] ?? 43200) : $this->delete();
        }
    }
}
