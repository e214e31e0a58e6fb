<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Models\Handoff;
use App\Models\Production;
use App\Models\User;
use App\Models\WebHook;
use App\Support\Audit;
use Illuminate\Support\Str;

/** Tells addresses of others what becomes of hand-offs: `delivered`, `accepted`, `asked`. */
final class WebHooks
{
    public const EVENTS = ['delivered', 'accepted', 'asked'];

    /** @param  array<string, mixed>  $more */
    public static function tell(Handoff $handoff, string $event, array $more = []): void
    {
        $hooks = WebHook::query()->where('production_id', $handoff->production_id)->get();
        $body =
            [
                'event' => $event,
                'production' => ['ulid' => $handoff->production->ulid, 'name' => $handoff->production->name],
                'handoff' => [
                    'ulid' => $handoff->ulid,
                    'number' => $handoff->number,
                    'title' => $handoff->title,
                    'folder' => $handoff->folder,
                ],
                'at' => now()->toIso8601String(),
            ] + $more;
        foreach ($hooks as $hook) {
            if (in_array($event, $hook->events, true)) {
                WebHookJob::dispatch($hook->id, $body)->afterCommit();
            }
        }
    }

    /**
     * @param  list<string>  $events
     * @return string the secret that signs what it is told, shown this once
     */
    public static function add(Production $production, User $user, string $url, array $events): string
    {
        $secret = Str::random(48);
        WebHook::query()->create([
            'production_id' => $production->id,
            'url' => $url,
            'secret' => $secret,
            'events' => array_values(array_unique($events)),
        ]);
        Audit::write('hook.made', $user->id, $production->id, ['url' => $url]);

        return $secret;
    }

    public static function remove(WebHook $hook, User $user): void
    {
        Audit::write('hook.removed', $user->id, $hook->production_id, ['url' => $hook->url]);
        $hook->delete();
    }

    /** What proves that a message is ours: HMAC-SHA256 over its second and its body. */
    public static function signature(string $secret, int $moment, string $body): string
    {
        return hash_hmac('sha256', "$moment.$body", $secret);
    }
}
