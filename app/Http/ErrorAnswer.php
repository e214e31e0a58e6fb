<?php

declare(strict_types=1);

namespace App\Http;

use App\Policies\ProductionPolicy;
use App\Support\Problem;
use Aws\Exception\AwsException;
use Cartella\Core\CartellaException;
use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Auth\AuthenticationException;
use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Http\JsonResponse;
use Illuminate\Session\TokenMismatchException;
use Illuminate\Validation\ValidationException;
use League\Flysystem\FilesystemException;
use Symfony\Component\HttpKernel\Exception\HttpExceptionInterface;

/** Turns whatever went wrong into `{code, message, fix, context}`, in one place. */
final class ErrorAnswer
{
    public static function of(\Throwable $trouble): ?JsonResponse
    {
        return match (true) {
            $trouble instanceof Problem => self::json(
                $trouble->status,
                $trouble->problemCode,
                $trouble->getMessage(),
                $trouble->fix,
                $trouble->context,
            ),
            $trouble instanceof CartellaException => self::json(
                422,
                $trouble->problemCode(),
                $trouble->getMessage(),
                $trouble->fix(),
                $trouble->context(),
            ),
            $trouble instanceof ValidationException => self::json(
                422,
                'input.invalid',
                (string) collect($trouble->errors())->flatten()->first(),
                'Correct it and send it again.',
                ['fields' => array_keys($trouble->errors())],
            ),
            $trouble instanceof AuthenticationException => self::json(
                401,
                'session.none',
                'You are not signed in.',
                'Sign in and try again.',
            ),
            $trouble instanceof TokenMismatchException => self::json(
                419,
                'session.expired',
                'Your session has ended.',
                'Load the page again and sign in.',
            ),
            $trouble instanceof ModelNotFoundException => self::notFound(),
            $trouble instanceof AuthorizationException => $trouble->status() === 404 ? self::notFound() : self::refused($trouble, $trouble),
            $trouble instanceof FilesystemException, $trouble instanceof AwsException => self::json(
                503,
                'store.away',
                'This could not be had from where media and packages are kept.',
                'Try again in a minute; an admin finds the cause in the log.',
            ),
            $trouble instanceof HttpExceptionInterface => match ($trouble->getStatusCode()) {
                404 => self::notFound(),
                403 => self::refused($trouble, $trouble->getPrevious()),
                419 => self::json(419, 'session.expired', 'Your session has ended.', 'Load the page again and sign in.'),
                429 => self::json(429, 'too_many', 'That was tried too often.', 'Wait a minute and try again.'),
                405 => self::json(405, 'method', 'That cannot be done with this address.', 'Load the page again.'),
                default => self::json($trouble->getStatusCode(), 'http', 'The request could not be answered.', 'Try again.'),
            },
            default => config('app.debug')
                ? null
                : self::json(500, 'fault', 'Something went wrong here. Nothing was lost.', 'Try again; the cause is in the log.'),
        };
    }

    /** @param  \Throwable|null  $cause  whose answer says whether only an admin may */
    private static function refused(\Throwable $trouble, ?\Throwable $cause): JsonResponse
    {
        $isAdmins = $cause instanceof AuthorizationException && $cause->response()?->code() === ProductionPolicy::ADMINS;

        return self::json(
            403,
            'role.forbidden',
            in_array($trouble->getMessage(), ['', 'This action is unauthorized.'], true)
                ? 'Your role does not allow this.'
                : $trouble->getMessage(),
            $isAdmins ? 'Ask an admin.' : 'Ask an assistant or an admin of the production.',
        );
    }

    private static function notFound(): JsonResponse
    {
        return self::json(
            404,
            'missing',
            'There is nothing here, or it is not in your productions.',
            'Check the address, or choose the production again.',
        );
    }

    /** @param  array<string, mixed>  $context */
    private static function json(int $status, string $code, string $message, string $fix, array $context = []): JsonResponse
    {
        return new JsonResponse(['code' => $code, 'message' => $message, 'fix' => $fix, 'context' => (object) $context], $status);
    }
}
