<?php

declare(strict_types=1);

namespace App\Http\Account;

use App\Domain\People\SecondFactor;
use App\Domain\People\Sessions;
use App\Http\Account\Answers\EndedAnswer;
use App\Http\Account\Answers\RecoveryCodesAnswer;
use App\Http\Account\Answers\SecondFactorAnswer;
use App\Http\Account\Answers\SessionsAnswer;
use App\Http\Account\Requests\ConfirmSecondFactorRequest;
use App\Http\Account\Requests\OwnKeysRequest;
use App\Http\Account\Requests\PanelsRequest;
use App\Http\Account\Requests\PasswordRequest;
use App\Http\Account\Requests\RemoveSecondFactorRequest;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Shell\Answers\DoneAnswer;
use App\Support\Audit;
use App\Support\Problem;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Hash;

/** What a person may change of their own account. */
final class AccountController extends Controller
{
    public function password(PasswordRequest $request, Sessions $sessions): JsonResponse
    {
        $input = $request->validated();
        $user = self::who($request);
        if (!Hash::check($input['current'], $user->password)) {
            throw Problem::refused('account.password', 'That is not your password of now.', 'Check it and try again.');
        }
        $user->update(['password' => $input['password'], 'must_change_password' => false]);
        $ended = $sessions->endAll($user, $request->session()->getId());
        Audit::write('password_changed', $user->id, null, [], $request->ip());

        return new JsonResponse(new EndedAnswer($ended));
    }

    public function beginSecondFactor(Request $request, SecondFactor $second): JsonResponse
    {
        return new JsonResponse(Answers::make(SecondFactorAnswer::class, $second->begin(self::who($request))), 201);
    }

    public function confirmSecondFactor(ConfirmSecondFactorRequest $request, SecondFactor $second): JsonResponse
    {
        $code = $request->validated()['code'];

        return new JsonResponse(
            new RecoveryCodesAnswer($second->confirm(self::who($request), (string) preg_replace('/\s+/', '', $code), $request->ip())),
        );
    }

    public function removeSecondFactor(RemoveSecondFactorRequest $request, SecondFactor $second): JsonResponse
    {
        $input = $request->validated();
        $user = self::who($request);
        if (!Hash::check($input['password'], $user->password)) {
            throw Problem::refused('account.password', 'That is not your password.', 'Check it and try again.');
        }
        $second->remove($user, $user, $request->ip());

        return new JsonResponse(new DoneAnswer());
    }

    /** Which keys stand for what, where a person wants others; the place on the card names it. */
    public function keys(OwnKeysRequest $request): JsonResponse
    {
        $keys = $request->validated('keys');
        self::who($request)->update(['own_keys' => $keys === [] ? null : $keys]);

        return new JsonResponse(new DoneAnswer());
    }

    /** How wide the panel of each stage is for this person. */
    public function panels(PanelsRequest $request): JsonResponse
    {
        self::who($request)->update(['panels' => array_map(intval(...), $request->validated('panels'))]);

        return new JsonResponse(new DoneAnswer());
    }

    public function sessions(Request $request, Sessions $sessions): JsonResponse
    {
        return new JsonResponse(
            Answers::make(SessionsAnswer::class, ['sessions' => $sessions->of(self::who($request), $request->session()->getId())]),
        );
    }

    public function endSession(Request $request, string $session, Sessions $sessions): JsonResponse
    {
        $user = self::who($request);
        if (!$sessions->end($user, $session)) {
            throw Problem::missing('That session', 'Load the list again.');
        }
        Audit::write('session_ended', $user->id, null, [], $request->ip());

        return new JsonResponse(new DoneAnswer());
    }
}
