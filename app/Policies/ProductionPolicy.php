<?php

declare(strict_types=1);

namespace App\Policies;

use App\Models\Production;
use App\Models\Role;
use App\Models\User;
use Illuminate\Auth\Access\Response;

/**
 * Who may do what in a production. Whoever is not of it learns nothing, not even that it exists: the answer is 404.
 */
final class ProductionPolicy
{
    /** The code of a refusal where nobody but an admin may. */
    public const ADMINS = 'admins';

    /** Only an admin opens a production. */
    public function create(User $user): Response
    {
        return $user->role === Role::Admin ? Response::allow() : Response::deny('An admin opens productions.', self::ADMINS);
    }

    public function view(User $user, Production $production): Response
    {
        return $this->among($user, $production, Role::cases(), '');
    }

    /** Offload, log, line up, hand off. */
    public function work(User $user, Production $production): Response
    {
        return $this->among(
            $user,
            $production,
            [Role::Assistant, Role::Admin],
            'This is the assistant\'s work; your role is to look on here.',
        );
    }

    /** Bins, subclips and reels of one's own. */
    public function organise(User $user, Production $production): Response
    {
        return $this->among(
            $user,
            $production,
            [Role::Assistant, Role::Editor, Role::Admin],
            'Reviewers watch, note and circle; bins are for assistants and editors.',
        );
    }

    /** Watch, note and circle. */
    public function review(User $user, Production $production): Response
    {
        return $this->among($user, $production, Role::cases(), '');
    }

    /** Accept or query a hand-off. */
    public function accept(User $user, Production $production): Response
    {
        return $this->among($user, $production, [Role::Editor, Role::Admin], 'The editor answers a hand-off.');
    }

    /** People, volumes and what is written down of them. */
    public function manage(User $user, Production $production): Response
    {
        return $this->among($user, $production, [Role::Admin], 'The admin of the production does that.');
    }

    /** @param  list<Role>  $roles */
    private function among(User $user, Production $production, array $roles, string $why): Response
    {
        $role = $user->roleIn($production);
        if ($role === null) {
            return Response::denyAsNotFound();
        }

        return in_array($role, $roles, true) ? Response::allow() : Response::deny($why, $roles === [Role::Admin] ? self::ADMINS : null);
    }
}
