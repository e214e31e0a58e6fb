<?php

declare(strict_types=1);

namespace Cartella\Core\Custody\Internal;

/**
 * The few calls of the C library that PHP has no function for: statx(2) for times to the nanosecond, and open(2) with
 * O_DIRECT and posix_fadvise(2) to read what lies on the medium instead of what the kernel still remembers.
 *
 * Needs PHP's FFI extension and Linux; without them every method says so by null. Stands without the autoloader, since
 * `bin/read-back.php` runs as a bare PHP.
 *
 * @internal
 */
final class Libc
{
    private const AT_FDCWD = -100;

    private const AT_SYMLINK_NOFOLLOW = 0x100;

    private const STATX_BASIC = 0x7ff;

    private const O_CLOEXEC = 0x80000;

    private const FADV_DONTNEED = 4;

    private const SEEK_END = 2;

    private const BLOCK = 4096;

    /** Bytes of one direct read: large enough that a disk streams. */
    private const PIECE = 4 << 20;

    /** Bytes that are handed on at once: larger strings PHP would ask the system for, and clear, each time. */
    private const SLICE = 1 << 18;

    private const HEADER = <<<'C'
    struct moment { int64_t seconds; uint32_t nanoseconds; int32_t reserved; };
    struct statx {
        uint32_t mask; uint32_t block_size; uint64_t attributes;
        uint32_t links; uint32_t user; uint32_t group; uint16_t mode; uint16_t padding;
        uint64_t inode; uint64_t size; uint64_t blocks; uint64_t attributes_mask;
        struct moment accessed; struct moment born; struct moment changed; struct moment modified;
        uint32_t rdev_major; uint32_t rdev_minor; uint32_t dev_major; uint32_t dev_minor; uint64_t spare[14];
    };
    int statx(int folder, const char *path, int flags, unsigned int mask, struct statx *answer);
    int open(const char *path, int flags);
    int close(int descriptor);
    ssize_t pread(int descriptor, void *buffer, size_t count, int64_t offset);
    int64_t lseek(int descriptor, int64_t offset, int whence);
    int posix_fadvise(int descriptor, int64_t offset, int64_t length, int advice);
    int posix_memalign(void **memory, size_t alignment, size_t size);
    C;

    private static \FFI|false|null $ffi = null;

    /** @var \FFI\CData|null a piece of memory at a block's bound, kept for the life of the process */
    private static ?\FFI\CData $buffer = null;

    /**
     * What changes when a file is written to again, even in the same second and to the same size: size, inode, and the
     * times of content and inode in nanoseconds.
     *
     * @return string|null null when the file is not there, or the system cannot tell
     */
    public static function stamp(string $path): ?string
    {
        $c = self::get();
        if ($c === null) {
            return null;
        }
        $answer = $c->new('struct statx');
        if ($c->statx(self::AT_FDCWD, $path, self::AT_SYMLINK_NOFOLLOW, self::STATX_BASIC, \FFI::addr($answer)) !== 0) {
            return null;
        }

        return sprintf(
            '%d.%d.%d.%09d.%d.%09d',
            $answer->size,
            $answer->inode,
            $answer->modified->seconds,
            $answer->modified->nanoseconds,
            $answer->changed->seconds,
            $answer->changed->nanoseconds,
        );
    }

    /**
     * Reads a file past the page cache.
     *
     * @param  callable(string): void  $onPiece
     * @return bool|null true at its end; false when it cannot be read; null when this file system reads only through the cache
     */
    public static function readMedium(string $path, callable $onPiece): ?bool
    {
        $c = self::get();
        $file = $c?->open($path, self::direct() | self::O_CLOEXEC);
        if ($c === null || $file < 0) {
            return null;
        }
        try {
            $buffer = self::buffer($c);
            $bytes = $c->cast('char *', $buffer);
            $size = (int) $c->lseek($file, 0, self::SEEK_END);
            for ($at = 0; ; $at += $count) {
                // Not more than is there: the kernel would clear the rest of the buffer each time.
                $left = (int) ceil(max(1, $size - $at) / self::BLOCK) * self::BLOCK;
                $count = (int) $c->pread($file, $buffer, min(self::PIECE, $left), $at);
                if ($count <= 0) {
                    // The first read tells whether the file system can do it at all.
                    return $count === 0 ? true : ($at === 0 ? null : false);
                }
                for ($from = 0; $from < $count; $from += self::SLICE) {
                    $onPiece(\FFI::string(\FFI::addr($bytes[$from]), min(self::SLICE, $count - $from)));
                }
                if ($count % self::BLOCK !== 0) {
                    return true; // only the last block of a file is a part of one
                }
            }
        } finally {
            $c->close($file);
        }
    }

    /** Asks the kernel to forget what it remembers of a file's content; it may not do so. */
    public static function forget(string $path): void
    {
        $c = self::get();
        $file = $c?->open($path, self::O_CLOEXEC);
        if ($c !== null && $file >= 0) {
            $c->posix_fadvise($file, 0, 0, self::FADV_DONTNEED);
            $c->close($file);
        }
    }

    private static function direct(): int
    {
        static $flag = null;

        return $flag ??= preg_match('/\A(?:aarch64|arm)/', php_uname('m')) === 1 ? 0x10000 : 0x4000;
    }

    private static function buffer(\FFI $c): \FFI\CData
    {
        if (self::$buffer === null) {
            $pointer = $c->new('void *');
            if ($c->posix_memalign(\FFI::addr($pointer), self::BLOCK, self::PIECE) !== 0) {
                throw new \RuntimeException('There is no memory to read into.');
            }
            self::$buffer = $pointer;
        }

        return self::$buffer;
    }

    private static function get(): ?\FFI
    {
        if (self::$ffi === null) {
            self::$ffi = false;
            if (PHP_OS_FAMILY === 'Linux' && extension_loaded('ffi')) {
                try {
                    self::$ffi = \FFI::cdef(self::HEADER, 'libc.so.6');
                } catch (\FFI\Exception) {
                    // A web server's PHP may forbid it; then the second's times and the cache are all there is.
                }
            }
        }

        return self::$ffi ?: null;
    }
}
