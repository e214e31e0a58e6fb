<?php

declare(strict_types=1);

namespace App\Http\Settings;

use App\Domain\People\EditPeople;
use App\Domain\People\Sessions;
use App\Http\Controller;
use App\Models\Production;
use App\Models\Role;
use App\Models\User;
use App\Support\Audit;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Validation\Rule;

/** Who belongs to a production, and what was written down of it. */
final class PeopleController extends Controller
{
    private const AUDIT_ROWS = 200;

    public function index(Request $request, Production $production, Sessions $sessions): JsonResponse
    {
        $people = $production->users()->orderBy('name')->get();

        return new JsonResponse([
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
        ]);
    }

    public function store(Request $request, Production $production, EditPeople $people): JsonResponse
    {
        $input = $request->validate(
            [
                'email' => ['required', 'string', 'email', 'max:190'],
                'name' => ['required', 'string', 'max:120', 'regex:/\S/'],
                'role' => ['required', Rule::enum(Role::class)],
            ],
            ['email.*' => 'Give an e-mail address.', 'name.*' => 'Give a name.', 'role.*' => 'Choose a role.'],
        );
        $added = $people->add(
            $production,
            self::who($request),
            $input['email'],
            trim($input['name']),
            Role::from($input['role']),
            $request->ip(),
        );

        return new JsonResponse(['ulid' => $added['user']->ulid, 'name' => $added['user']->name, 'password' => $added['password']], 201);
    }

    public function update(Request $request, Production $production, User $user, EditPeople $people): JsonResponse
    {
        $input = $request->validate([
            'role' => ['sometimes', Rule::enum(Role::class)],
            'must_use_second_factor' => ['sometimes', 'boolean'],
        ]);
        if (isset($input['role'])) {
            $people->setRole($production, self::who($request), $user, Role::from($input['role']), $request->ip());
        }
        if (isset($input['must_use_second_factor'])) {
            $people->requireSecondFactor($production, self::who($request), $user, (bool) $input['must_use_second_factor'], $request->ip());
        }

        return new JsonResponse([]);
    }

    public function destroy(Request $request, Production $production, User $user, EditPeople $people): JsonResponse
    {
        $people->end($production, self::who($request), $user, $request->ip());

        return new JsonResponse([]);
    }

    public function password(Request $request, Production $production, User $user, EditPeople $people): JsonResponse
    {
        return new JsonResponse(['password' => $people->resetPassword($production, self::who($request), $user, $request->ip())]);
    }

    public function removeSecondFactor(Request $request, Production $production, User $user, EditPeople $people): JsonResponse
    {
        $people->removeSecondFactor(self::who($request), $user, $request->ip());

        return new JsonResponse([]);
    }

    public function endSessions(Request $request, Production $production, User $user, Sessions $sessions): JsonResponse
    {
        $ended = $sessions->endAll($user, $user->is($request->user()) ? $request->session()->getId() : null);
        Audit::write('session_ended', self::who($request)->id, $production->id, ['person' => $user->email], $request->ip());

        return new JsonResponse(['ended' => $ended]);
    }

    /** What was written down of this production and of its people's sign-ins, newest first. */
    public function audit(Production $production): JsonResponse
    {
        return new JsonResponse(['rows' => Audit::of($production, self::AUDIT_ROWS)]);
    }
}
