<?php

declare(strict_types=1);

namespace App\Models\Concerns;

use Illuminate\Support\Str;

/** Gives a row the ULID under which it is known outside the database. */
trait HasUlid
{
    protected static function bootHasUlid(): void
    {
        static::creating(static function (self $row): void {
            $row->ulid ??= (string) Str::ulid();
        });
    }

    public function getRouteKeyName(): string
    {
        return 'ulid';
    }
}
