<?php

declare(strict_types=1);

namespace App\Http;

use App\Models\User;
use Illuminate\Http\Request;

/** What every controller shares: the person who asks. */
abstract class Controller
{
    protected static function who(Request $request): User
    {
        $user = $request->user();

        return $user instanceof User ? $user : throw new \LogicException('A route without a sign-in asks for its user.');
    }
}
