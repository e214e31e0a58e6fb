<?php

declare(strict_types=1);

namespace App\Domain\People;

use App\Models\User;
use App\Support\Audit;
use App\Support\Listening;
use App\Support\Problem;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Facades\RateLimiter;

/**
 * Lets somebody in by address, password and, where it is set up, a second factor. Failures are counted by account, by
 * address and altogether, so that neither one password over many accounts nor many over one gets far.
 */
final class SignIn
{
    private const WINDOW_SECONDS = 300;

    private const BY_ACCOUNT = 10;

    private const BY_ADDRESS = 40;

    private const ALTOGETHER = 500;

    /** A hash of nothing that anybody types: an account that is not there takes as long as one that is. */
    private static ?string $nobody = null;

    public function __construct(private readonly SecondFactor $second) {}

    /** @throws Problem if it was tried too often, the two do not go together, or a code is missing or wrong */
    public function __invoke(string $email, string $password, ?string $code, string $address): User
    {
        $limits = [
            'sign-in.account.' . hash('xxh128', mb_strtolower($email)) => self::BY_ACCOUNT,
            'sign-in.address.' . $address => self::BY_ADDRESS,
            'sign-in.all' => self::ALTOGETHER,
        ];
        foreach ($limits as $key => $most) {
            if (RateLimiter::tooManyAttempts($key, $most)) {
                throw Problem::tooOften(RateLimiter::availableIn($key));
            }
        }
        // Byte for byte: a collation that takes letters for one another must open no account.
        $user = User::query()->where('email', $email)->get()->first(static fn(User $one): bool => $one->email === $email);
        self::$nobody ??= Hash::make(bin2hex(random_bytes(16)));
        $isRight = Hash::check($password, $user->password ?? self::$nobody);
        // Their passwords are published.
        if ($user?->is_demo === true && !Listening::isLocal()) {
            throw Problem::refused(
                'session.demo',
                'The demo log-ins work on the machine of the desk only.',
                'Sign in with an account of your own.',
            );
        }
        if ($user === null || !$isRight) {
            $this->refuse($limits, $user, $email, $address, 'password');
            throw Problem::refused('session.wrong', 'That address and password do not go together.', 'Check both and try again.');
        }
        if ($user->second_factor_at !== null && trim((string) $code) === '') {
            throw Problem::refused(
                'session.code',
                'Type the code of your authenticator as well.',
                'It has six digits and changes twice a minute; a recovery code will do.',
            );
        }
        if ($user->second_factor_at !== null && !$this->second->takes($user, (string) $code)) {
            $this->refuse($limits, $user, $email, $address, 'code');
            throw Problem::refused(
                'session.code',
                'That is not the code of this moment, or it was used already.',
                'Wait for the next one and try again.',
            );
        }
        RateLimiter::clear(array_key_first($limits));
        if (Hash::needsRehash($user->password)) {
            $user->update(['password' => $password]);
        }
        Audit::write('signed_in', $user->id, null, ['second_factor' => $user->second_factor_at !== null], $address);

        return $user->refresh();
    }

    /** @param  array<string, int>  $limits */
    private function refuse(array $limits, ?User $user, string $email, string $address, string $what): void
    {
        foreach (array_keys($limits) as $key) {
            RateLimiter::hit($key, self::WINDOW_SECONDS);
        }
        Audit::write('sign_in_refused', $user?->id, null, ['wrong' => $what], $address, $email);
    }
}
