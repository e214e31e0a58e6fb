<?php

declare(strict_types=1);

namespace App\Http\Session;

use App\Domain\People\SignIn;
use App\Http\Controller;
use App\Models\Production;
use App\Models\Role;
use App\Models\User;
use App\Support\Audit;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;

/** Signing in and out, and who is signed in with which productions. */
final class SessionController extends Controller
{
    public function show(Request $request): JsonResponse
    {
        return new JsonResponse($request->user() === null ? ['user' => null, 'productions' => []] : self::answer(self::who($request)));
    }

    public function store(Request $request, SignIn $signIn): JsonResponse
    {
        $input = $request->validate(
            [
                'email' => ['required', 'string', 'max:190'],
                'password' => ['required', 'string', 'max:190'],
                'code' => ['nullable', 'string', 'max:20'],
            ],
            ['required' => 'Type your e-mail address and your password.', 'string' => 'Type your e-mail address and your password.'],
        );
        $user = $signIn($input['email'], $input['password'], $input['code'] ?? null, (string) $request->ip());
        Auth::login($user);
        $request->session()->regenerate();

        return new JsonResponse(self::answer($user));
    }

    public function destroy(Request $request): JsonResponse
    {
        Audit::write('signed_out', self::who($request)->id, null, [], $request->ip());
        Auth::logout();
        $request->session()->invalidate();
        $request->session()->regenerateToken();

        return new JsonResponse(['user' => null, 'productions' => []]);
    }

    /** @return array<string, mixed> */
    private static function answer(User $user): array
    {
        $productions = $user->role === Role::Admin ? Production::query() : $user->productions();

        return [
            'user' => [
                'ulid' => $user->ulid,
                'name' => $user->name,
                'email' => $user->email,
                'initials' => $user->initials(),
                'role' => $user->role->value,
                'needs' => $user->needs(),
                'has_second_factor' => $user->second_factor_at !== null,
                'recovery_codes_left' => count($user->recovery_codes ?? []),
            ],
            'productions' =>
                $user->needs() !== null
                    ? []
                    : $productions
                        ->orderBy('name')
                        ->get()
                        ->map(static fn(Production $production): array => ['ulid' => $production->ulid, 'name' => $production->name])
                        ->all(),
        ];
    }
}
