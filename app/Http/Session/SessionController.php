<?php

declare(strict_types=1);

namespace App\Http\Session;

use App\Domain\People\SignIn;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Session\Answers\SessionStateAnswer;
use App\Http\Session\Requests\SignInRequest;
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
        return new JsonResponse($request->user() === null ? new SessionStateAnswer(null, []) : self::answer(self::who($request)));
    }

    public function store(SignInRequest $request, SignIn $signIn): JsonResponse
    {
        $input = $request->validated();
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

        return new JsonResponse(new SessionStateAnswer(null, []));
    }

    private static function answer(User $user): SessionStateAnswer
    {
        $productions = $user->role === Role::Admin ? Production::query() : $user->productions();

        return Answers::make(SessionStateAnswer::class, [
            'user' => [
                'ulid' => $user->ulid,
                'name' => $user->name,
                'email' => $user->email,
                'initials' => $user->initials(),
                'role' => $user->role->value,
                'needs' => $user->needs(),
                'has_second_factor' => $user->second_factor_at !== null,
                'recovery_codes_left' => count($user->recovery_codes ?? []),
                'own_keys' => $user->own_keys ?? [],
                'panels' => $user->panels ?? [],
            ],
            'productions' =>
                $user->needs() !== null
                    ? []
                    : $productions
                        ->orderBy('name')
                        ->get()
                        ->map(static fn(Production $production): array => ['ulid' => $production->ulid, 'name' => $production->name])
                        ->all(),
        ]);
    }
}
