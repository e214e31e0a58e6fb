<?php

declare(strict_types=1);

namespace App\Http\Account;

use App\Domain\People\SecondFactor;
use App\Domain\People\Sessions;
use App\Http\Controller;
use App\Support\Audit;
use App\Support\Problem;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Hash;

/** What a person may change of their own account. */
final class AccountController extends Controller
{
    private const LEAST_LETTERS = 10;

    public function password(Request $request, Sessions $sessions): JsonResponse
    {
        $input = $request->validate(
            [
                'current' => ['required', 'string', 'max:190'],
                'password' => ['required', 'string', 'min:' . self::LEAST_LETTERS, 'max:190', 'different:current'],
            ],
            [
                'password.min' => 'A password has at least ' . self::LEAST_LETTERS . ' letters.',
                'password.different' => 'Choose another password than before.',
                'required' => 'Type the old password and the new one.',
            ],
        );
        $user = self::who($request);
        if (!Hash::check($input['current'], $user->password)) {
            throw Problem::refused('account.password', 'That is not your password of now.', 'Check it and try again.');
        }
        $user->update(['password' => $input['password'], 'must_change_password' => false]);
        $ended = $sessions->endAll($user, $request->session()->getId());
        Audit::write('password_changed', $user->id, null, [], $request->ip());

        return new JsonResponse(['ended' => $ended]);
    }

    public function beginSecondFactor(Request $request, SecondFactor $second): JsonResponse
    {
        return new JsonResponse($second->begin(self::who($request)), 201);
    }

    public function confirmSecondFactor(Request $request, SecondFactor $second): JsonResponse
    {
        $code = $request->validate(['code' => ['required', 'string', 'max:20']], ['*' => 'Type the six digits.'])['code'];

        return new JsonResponse([
            'recovery_codes' => $second->confirm(self::who($request), (string) preg_replace('/\s+/', '', $code), $request->ip()),
        ]);
    }

    public function removeSecondFactor(Request $request, SecondFactor $second): JsonResponse
    {
        $input = $request->validate(['password' => ['required', 'string', 'max:190']], ['*' => 'Type your password.']);
        $user = self::who($request);
        if (!Hash::check($input['password'], $user->password)) {
            throw Problem::refused('account.password', 'That is not your password.', 'Check it and try again.');
        }
        $second->remove($user, $user, $request->ip());

        return new JsonResponse([]);
    }

    public function sessions(Request $request, Sessions $sessions): JsonResponse
    {
        return new JsonResponse(['sessions' => $sessions->of(self::who($request), $request->session()->getId())]);
    }

    public function endSession(Request $request, string $session, Sessions $sessions): JsonResponse
    {
        $user = self::who($request);
        if (!$sessions->end($user, $session)) {
            throw Problem::missing('That session', 'Load the list again.');
        }
        Audit::write('session_ended', $user->id, null, [], $request->ip());

        return new JsonResponse([]);
    }
}
