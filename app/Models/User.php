<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Relations\BelongsToMany;
use Illuminate\Foundation\Auth\User as Account;
use Illuminate\Support\Facades\DB;

/**
 * Somebody who signs in. Their role is said in each production; the account's own counts where one says nothing.
 *
 * @property int $id
 * @property string $ulid
 * @property string $name
 * @property string $email
 * @property string $password
 * @property \App\Models\Role $role
 * @property string|null $remember_token
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property string|null $second_factor
 * @property \Carbon\CarbonInterface|null $second_factor_at
 * @property int|null $second_factor_step
 * @property array<mixed>|null $recovery_codes
 * @property bool $must_use_second_factor
 * @property bool $must_change_password
 * @property bool $is_demo
 * @property array<mixed>|null $own_keys
 * @property array<string, int>|null $panels
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Production> $productions
 */
class User extends Account
{
    use HasUlid;

    protected $guarded = [];

    protected $hidden = ['password', 'remember_token', 'second_factor', 'recovery_codes'];

    protected function casts(): array
    {
        return [
            'role' => Role::class,
            'password' => 'hashed',
            'second_factor' => 'encrypted',
            'second_factor_at' => 'datetime',
            'recovery_codes' => 'encrypted:array',
            'must_use_second_factor' => 'boolean',
            'must_change_password' => 'boolean',
            'is_demo' => 'boolean',
            'own_keys' => 'array',
            'panels' => 'array',
        ];
    }

    /** @return BelongsToMany<Production, $this> */
    public function productions(): BelongsToMany
    {
        return $this->belongsToMany(Production::class)->withPivot('role');
    }

    /** @return Role|null null when they are not of the production; an admin of the whole desk is of all */
    public function roleIn(Production $production): ?Role
    {
        if ($this->role === Role::Admin) {
            return Role::Admin;
        }
        $row = DB::table('production_user')
            ->where('production_id', $production->id)
            ->where('user_id', $this->id)
            ->first(['role']);

        return $row === null ? null : Role::tryFrom((string) $row->role) ?? $this->role;
    }

    /** What has to be done before anything else; null when nothing has. */
    public function needs(): ?string
    {
        return match (true) {
            $this->must_change_password => 'password',
            $this->must_use_second_factor && $this->second_factor_at === null => 'second_factor',
            default => null,
        };
    }

    /** Two letters for a badge. */
    public function initials(): string
    {
        $words = preg_split('/\s+/', trim($this->name)) ?: [];

        return mb_strtoupper(mb_substr((string) reset($words), 0, 1) . (count($words) > 1 ? mb_substr((string) end($words), 0, 1) : ''));
    }
}
