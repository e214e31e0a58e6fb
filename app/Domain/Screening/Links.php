<?php

declare(strict_types=1);

namespace App\Domain\Screening;

use App\Models\ScreeningLink;
use App\Models\StoredSequence;
use App\Models\User;
use App\Support\Audit;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Carbon\CarbonInterface;
use Illuminate\Support\Facades\Hash;

/**
 * Links by which somebody from outside watches one reel: made for a person by name, until a moment, with a password if wanted, and ended
 * at any time. The secret is shown once, when it is made; what is kept of it does not open anything.
 */
final class Links
{
    /** Bytes of a secret. */
    private const SECRET = 24;

    /** @return array{link: ScreeningLink, secret: string} */
    public function make(StoredSequence $reel, User $user, string $for, ?CarbonInterface $until, ?string $password): array
    {
        $secret = rtrim(strtr(base64_encode(random_bytes(self::SECRET)), '+/', '-_'), '=');
        $link = ScreeningLink::query()->create([
            'production_id' => $reel->production_id,
            'sequence_id' => $reel->id,
            'user_id' => $user->id,
            'for_name' => $for,
            'secret_hash' => hash('sha256', $secret),
            'password' => $password === null ? null : Hash::make($password),
            'expires_at' => $until,
        ]);
        Audit::write('link.made', $user->id, $reel->production_id, ['reel' => $reel->name, 'for' => $for]);
        Live::tell($reel->production_id, Topic::Notes, ['sequence' => $reel->ulid]);

        return ['link' => $link->refresh(), 'secret' => $secret];
    }

    public function revoke(ScreeningLink $link, User $user): void
    {
        if ($link->revoked_at === null) {
            $link->update(['revoked_at' => now()]);
            Audit::write('link.ended', $user->id, $link->production_id, ['reel' => $link->reel->name, 'for' => $link->for_name]);
            Live::tell($link->production_id, Topic::Notes, ['sequence' => $link->reel->ulid]);
        }
    }

    /**
     * The link that a secret opens.
     *
     * @throws Problem if there is none, or it has ended
     */
    public function of(string $secret): ScreeningLink
    {
        $link = ScreeningLink::query()
            ->where('secret_hash', hash('sha256', $secret))
            ->with(['reel', 'production'])
            ->first();
        if ($link === null) {
            throw Problem::missing('A reel under this link', 'Look whether the whole link was copied.');
        }
        if ($link->revoked_at !== null || $link->expires_at?->isPast() === true || $link->reel->removed_at !== null) {
            throw Problem::gone('link.ended', 'This link has ended.', 'Ask whoever sent it for a new one.');
        }

        return $link;
    }

    /**
     * Counts one that begins to watch.
     *
     * @throws Problem if the password is another one
     */
    public function open(ScreeningLink $link, ?string $password): void
    {
        if ($link->password !== null && !Hash::check((string) $password, $link->password)) {
            throw Problem::forbidden('link.password', 'That is not the password of this link.', 'Ask whoever sent the link for it.');
        }
        ScreeningLink::query()
            ->whereKey($link->id)
            ->increment('opens', 1, ['last_opened_at' => now()]);
        Live::tell($link->production_id, Topic::Notes, ['sequence' => $link->reel->ulid]);
    }
}
