<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Relations\BelongsToMany;
use Illuminate\Foundation\Auth\User as Account;

/** Somebody who signs in, with one role for all their productions. */
class User extends Account
{
    use HasUlid;

    protected $guarded = [];

    protected $hidden = ['password', 'remember_token'];

    protected function casts(): array
    {
        return ['role' => Role::class, 'password' => 'hashed'];
    }

    /** @return BelongsToMany<Production, $this> */
    public function productions(): BelongsToMany
    {
        return $this->belongsToMany(Production::class);
    }

    /** Two letters for a badge. */
    public function initials(): string
    {
        $words = preg_split('/\s+/', trim($this->name)) ?: [];

        return mb_strtoupper(mb_substr((string) reset($words), 0, 1).(count($words) > 1 ? mb_substr((string) end($words), 0, 1) : ''));
    }
}
