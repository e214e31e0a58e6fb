<?php

declare(strict_types=1);

namespace App\Http\Settings;

use App\Domain\People\EditPeople;
use App\Domain\People\Sessions;
use App\Http\Account\Answers\EndedAnswer;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Settings\Answers\AddedPersonAnswer;
use App\Http\Settings\Answers\AuditAnswer;
use App\Http\Settings\Answers\NewPasswordAnswer;
use App\Http\Settings\Answers\PeopleAnswer;
use App\Http\Settings\Requests\AddPersonRequest;
use App\Http\Settings\Requests\ChangePersonRequest;
use App\Http\Shell\Answers\DoneAnswer;
use App\Models\Production;
use App\Models\Role;
use App\Models\User;
use App\Support\Audit;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** Who belongs to a production, and what was written down of it. */
final class PeopleController extends Controller
{
    private const AUDIT_ROWS = 200;

    public function index(Request $request, Production $production, Sessions $sessions): JsonResponse
    {
        $people = $production->users()->orderBy('name')->get();

        return new JsonResponse(
            Answers::make(PeopleAnswer::class, [
                'people' => $people
                    ->map(
                        static fn(User $person): array => [
                            'ulid' => $person->ulid,
                            'name' => $person->name,
                            'email' => $person->email,
                            'role' => $person->roleIn($production)?->value,
                            'is_desk_admin' => $person->role === Role::Admin,
                            'has_second_factor' => $person->second_factor_at !== null,
                            'must_use_second_factor' => $person->must_use_second_factor,
                            'must_change_password' => $person->must_change_password,
                            'sessions' => $sessions->count($person),
                            'is_you' => $person->is($request->user()),
                        ],
                    )
                    ->all(),
            ]),
        );
    }

    public function store(AddPersonRequest $request, Production $production, EditPeople $people): JsonResponse
    {
        $input = $request->validated();
        $added = $people->add(
            $production,
            self::who($request),
            $input['email'],
            trim($input['name']),
            Role::from($input['role']),
            $request->ip(),
        );

        return new JsonResponse(new AddedPersonAnswer($added['user']->ulid, $added['user']->name, $added['password']), 201);
    }

    public function update(ChangePersonRequest $request, Production $production, User $user, EditPeople $people): JsonResponse
    {
        $input = $request->validated();
        if (isset($input['role'])) {
            $people->setRole($production, self::who($request), $user, Role::from($input['role']), $request->ip());
        }
        if (isset($input['must_use_second_factor'])) {
            $people->requireSecondFactor($production, self::who($request), $user, (bool) $input['must_use_second_factor'], $request->ip());
        }

        return new JsonResponse(new DoneAnswer());
    }

    public function destroy(Request $request, Production $production, User $user, EditPeople $people): JsonResponse
    {
        $people->end($production, self::who($request), $user, $request->ip());

        return new JsonResponse(new DoneAnswer());
    }

    public function password(Request $request, Production $production, User $user, EditPeople $people): JsonResponse
    {
        return new JsonResponse(new NewPasswordAnswer($people->resetPassword($production, self::who($request), $user, $request->ip())));
    }

    public function removeSecondFactor(Request $request, Production $production, User $user, EditPeople $people): JsonResponse
    {
        $people->removeSecondFactor(self::who($request), $user, $request->ip());

        return new JsonResponse(new DoneAnswer());
    }

    public function endSessions(Request $request, Production $production, User $user, Sessions $sessions): JsonResponse
    {
        $ended = $sessions->endAll($user, $user->is($request->user()) ? $request->session()->getId() : null);
        Audit::write('session_ended', self::who($request)->id, $production->id, ['person' => $user->email], $request->ip());

        return new JsonResponse(new EndedAnswer($ended));
    }

    /** What was written down of this production and of its people's sign-ins, newest first. */
    public function audit(Production $production): JsonResponse
    {
        return new JsonResponse(Answers::make(AuditAnswer::class, ['rows' => Audit::of($production, self::AUDIT_ROWS)]));
    }
}
