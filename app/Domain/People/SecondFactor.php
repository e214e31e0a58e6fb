<?php

declare(strict_types=1);

namespace App\Domain\People;

use App\Models\User;
use App\Support\Audit;
use App\Support\Problem;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;

/** A second thing to sign in with beside the password: a code of an authenticator, or one of ten codes kept on paper. */
final class SecondFactor
{
    private const RECOVERY_CODES = 10;

    /** @return array{secret: string, address: string} to be confirmed with a code; nothing is asked for until then */
    public function begin(User $user): array
    {
        if ($user->second_factor_at !== null) {
            throw Problem::refused('account.second_factor', 'A second factor is set up already.', 'Remove it first.');
        }
        $secret = Totp::secret();
        $user->update(['second_factor' => $secret]);

        return ['secret' => $secret, 'address' => Totp::address($secret, $user->email)];
    }

    /** @return list<string> the recovery codes, shown once */
    public function confirm(User $user, string $code, ?string $address): array
    {
        $step =
            $user->second_factor === null || $user->second_factor_at !== null
                ? null
                : Totp::step($user->second_factor, $code, now()->getTimestamp(), null);
        if ($step === null) {
            throw Problem::refused(
                'account.code',
                'That is not the code of this moment.',
                'Wait for the next one and type it; check the clock of the device.',
            );
        }
        $codes = array_map(
            static fn(): string => Str::lower(Str::random(5)) . '-' . Str::lower(Str::random(5)),
            range(1, self::RECOVERY_CODES),
        );
        $user->update(['second_factor_at' => now(), 'second_factor_step' => $step, 'recovery_codes' => array_map(self::hash(...), $codes)]);
        Audit::write('second_factor_on', $user->id, null, [], $address);

        return $codes;
    }

    public function remove(User $user, ?User $by, ?string $address): void
    {
        $user->update(['second_factor' => null, 'second_factor_at' => null, 'second_factor_step' => null, 'recovery_codes' => null]);
        Audit::write('second_factor_off', $by->id ?? $user->id, null, ['of' => $user->email], $address);
    }

    /** Whether a code is right now. One that was used is used up. */
    public function takes(User $user, string $code): bool
    {
        $code = Str::lower((string) preg_replace('/\s+/', '', $code));

        return DB::transaction(static function () use ($user, $code): bool {
            $locked = User::query()->lockForUpdate()->findOrFail($user->id);
            $step =
                preg_match('/\A\d{6}\z/', $code) === 1
                    ? Totp::step((string) $locked->second_factor, $code, now()->getTimestamp(), $locked->second_factor_step)
                    : null;
            if ($step !== null) {
                $locked->update(['second_factor_step' => $step]);

                return true;
            }
            $left = array_values(array_diff($locked->recovery_codes ?? [], [self::hash($code)]));
            if (count($left) === count($locked->recovery_codes ?? [])) {
                return false;
            }
            $locked->update(['recovery_codes' => $left]);

            return true;
        });
    }

    /** The codes are long and random, so a plain hash keeps them. */
    private static function hash(string $code): string
    {
        return hash('sha256', $code);
    }
}
