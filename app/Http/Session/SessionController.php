<?php

declare(strict_types=1);

namespace App\Http\Session;

use App\Http\Controller;
use App\Models\Production;
use App\Models\Role;
use App\Models\User;
use App\Support\Problem;
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

    public function store(Request $request): JsonResponse
    {
        $input = $request->validate(['email' => ['required', 'string', 'max:190'], 'password' => ['required', 'string', 'max:190']], ['required' => 'Type your e-mail address and your password.']);
        if (! Auth::attempt(['email' => $input['email'], 'password' => $input['password']])) {
            throw Problem::refused('session.wrong', 'That address and password do not go together.', 'Check both and try again.');
        }
        $request->session()->regenerate();

        return new JsonResponse(self::answer(self::who($request)));
    }

    public function destroy(Request $request): JsonResponse
    {
        Auth::guard('web')->logout();
        $request->session()->invalidate();
        $request->session()->regenerateToken();

        return new JsonResponse(['user' => null, 'productions' => []]);
    }

    /** @return array<string, mixed> */
    private static function answer(User $user): array
    {
        $productions = $user->role === Role::Admin ? Production::query() : $user->productions();

        return [
            'user' => ['ulid' => $user->ulid, 'name' => $user->name, 'initials' => $user->initials(), 'role' => $user->role->value],
            'productions' => $productions->orderBy('name')->get()->map(static fn (Production $production): array => ['ulid' => $production->ulid, 'name' => $production->name])->all(),
        ];
    }
}
