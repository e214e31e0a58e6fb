<?php

declare(strict_types=1);

namespace App\Domain\People;

use App\Models\Production;
use App\Models\Role;
use App\Models\User;
use App\Support\Audit;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;

/** Who belongs to a production and as what, changed by its admin; every change is written down. */
final class EditPeople
{
    private const PASSWORD_LENGTH = 14;

    public function __construct(private readonly Sessions $sessions, private readonly SecondFactor $second) {}

    /** @return array{user: User, password: string|null} the first password of somebody who is new; shown once */
    public function add(Production $production, User $by, string $email, string $name, Role $role, ?string $address): array
    {
        return DB::transaction(function () use ($production, $by, $email, $name, $role, $address): array {
            $user = User::query()->where('email', $email)->lockForUpdate()->first();
            $password = null;
            if ($user === null) {
                $password = Str::password(self::PASSWORD_LENGTH, symbols: false);
                // The account's own role opens no other production, so it is the least one.
                $user = User::query()->create([
                    'email' => $email,
                    'name' => $name,
                    'role' => Role::Reviewer,
                    'password' => $password,
                    'must_change_password' => true,
                ]);
            } elseif ($production->users()->whereKey($user->id)->exists()) {
                throw Problem::refused('person.there', "$user->name belongs to this production already.", 'Change the role in the list.');
            }
            $production->users()->attach($user, ['role' => $role->value]);
            Audit::write('person_added', $by->id, $production->id, ['person' => $user->email, 'role' => $role->value], $address);
            Live::tell($production->id, Topic::Settings);

            return ['user' => $user, 'password' => $password];
        });
    }

    public function setRole(Production $production, User $by, User $person, Role $role, ?string $address): void
    {
        DB::transaction(function () use ($production, $by, $person, $role, $address): void {
            $was = $this->lockedRole($production, $person);
            if ($was === Role::Admin && $role !== Role::Admin) {
                $this->refuseLastAdmin($production, $person);
            }
            $production->users()->updateExistingPivot($person->id, ['role' => $role->value]);
            Audit::write(
                'role_changed',
                $by->id,
                $production->id,
                ['person' => $person->email, 'was' => $was->value, 'now' => $role->value],
                $address,
            );
            Live::tell($production->id, Topic::Settings);
        });
    }

    /** Ends somebody's part in the production; what they wrote stays under their name. */
    public function end(Production $production, User $by, User $person, ?string $address): void
    {
        DB::transaction(function () use ($production, $by, $person, $address): void {
            if ($this->lockedRole($production, $person) === Role::Admin) {
                $this->refuseLastAdmin($production, $person);
            }
            $production->users()->detach($person->id);
            Audit::write('membership_ended', $by->id, $production->id, ['person' => $person->email], $address);
            Live::tell($production->id, Topic::Settings);
        });
    }

    /** @return string the new password, shown once; every session of the person ends */
    public function resetPassword(Production $production, User $by, User $person, ?string $address): string
    {
        $this->refuseBeyond($by, $person);
        $password = Str::password(self::PASSWORD_LENGTH, symbols: false);
        $person->update(['password' => $password, 'must_change_password' => true]);
        $this->sessions->endAll($person);
        Audit::write('password_reset', $by->id, $production->id, ['person' => $person->email], $address);

        return $password;
    }

    public function requireSecondFactor(Production $production, User $by, User $person, bool $must, ?string $address): void
    {
        $this->refuseBeyond($by, $person);
        $person->update(['must_use_second_factor' => $must]);
        Audit::write(
            'setting_changed',
            $by->id,
            $production->id,
            ['person' => $person->email, 'second_factor_required' => $must],
            $address,
        );
        Live::tell($production->id, Topic::Settings);
    }

    /** For somebody who lost their authenticator and their codes. */
    public function removeSecondFactor(User $by, User $person, ?string $address): void
    {
        $this->refuseBeyond($by, $person);
        $this->second->remove($person, $by, $address);
        $this->sessions->endAll($person);
    }

    private function lockedRole(Production $production, User $person): Role
    {
        $row = DB::table('production_user')
            ->where('production_id', $production->id)
            ->where('user_id', $person->id)
            ->lockForUpdate()
            ->first();
        if ($row === null) {
            throw Problem::missing('That person', 'Load the page again.');
        }

        return Role::tryFrom((string) $row->role) ?? $person->role;
    }

    /** Somebody has to be left who may manage it; an admin of the whole desk always is. */
    private function refuseLastAdmin(Production $production, User $person): void
    {
        $others = $production
            ->users()
            ->whereKeyNot($person->id)
            ->get()
            ->filter(static fn(User $other): bool => $other->roleIn($production) === Role::Admin);
        if ($others->isEmpty() && User::query()->where('role', Role::Admin)->whereKeyNot($person->id)->doesntExist()) {
            throw Problem::refused(
                'person.last_admin',
                'A production needs an admin, and there is no other.',
                'Make somebody else admin first.',
            );
        }
    }

    /**
     * An account opens every production of its person: who may manage one of them only must not take the account over.
     *
     * @throws Problem
     */
    private function refuseBeyond(User $by, User $person): void
    {
        $isOwn =
            $person->role !== Role::Admin &&
            $person->productions()->get()->every(static fn(Production $production): bool => $by->roleIn($production) === Role::Admin);
        if ($by->role !== Role::Admin && !$isOwn) {
            throw Problem::refused(
                'person.beyond',
                "$person->name works in productions that are not yours to manage.",
                'Ask an admin of the whole desk.',
            );
        }
    }
}
