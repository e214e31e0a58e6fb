<?php

declare(strict_types=1);

namespace Cartella\Standins;

/**
 * Makes the cards that give trouble, each from the demo's own material, the first time it is inserted. A read error is a
 * real one: the card is a compressed file system with a block that cannot be unpacked.
 */
final class SpecialCards
{
    /** By key: the name that the volume has in the reader, and what it is. */
    public const CARDS = [
        'healthy' => ['A010', 'Six whole clips of camera A'],
        'same-as-A001' => ['COPY A001', 'The content of A001 under another name'],
        'more-on-A001' => ['A001', 'A001 with three more clips'],
        'A001-used-again' => ['A001', 'A001, wiped and shot again'],
        'parts' => ['S010', 'Recordings in several files: tracks apart, and one that goes on in a second file'],
        'unreadable' => ['B010', 'One clip cannot be read past its middle'],
        'still-recording' => ['A011', 'One clip grows while it is copied'],
        'many' => ['M010', '4 000 small files'],
        'huge' => ['A012', 'One file of 6 GB'],
        'hostile' => ['H010', 'Names that other systems refuse'],
        'link-out' => ['L010', 'A link that leads off the card'],
    ];

    private const SMALL_FILES = 4000;

    private const HUGE_BYTES = 6_000_000_000;

    private const FREE_BYTES = 4 << 20;

    public function __construct(private readonly string $library, private readonly string $folder) {}

    /** The card's folder, or its image file where it has to be mounted. */
    public function make(string $key): string
    {
        $made = $this->folder . '/' . $key;
        if (file_exists($made)) {
            return $made;
        }
        $work = $this->folder . '/.making-' . $key;
        CardBench::remove($work);
        mkdir($work, 0777, true);
        match ($key) {
            'healthy' => $this->clips(
                $work,
                'A010',
                ['A001C001.mov', 'A001C002.mov', 'A001C003.mov', 'A001C004.mov', 'A001C005.mov', 'A001C006.mov'],
                'A',
            ),
            'same-as-A001' => CardBench::copy($this->card('A001'), $work, true),
            'more-on-A001' => $this->moreOnA001($work),
            'A001-used-again' => $this->clips($work, 'A001', ['A002C004.mov', 'A002C005.mov'], 'A', 'used-again-'),
            'parts' => $this->parts($work),
            'unreadable' => $this->clips($work, 'B010', ['A001C001.mov', 'A001C002.mov', 'A001C003.mov'], 'B'),
            'still-recording' => $this->clips($work, 'A011', ['A001C001.mov', 'A001C002.mov'], 'A'),
            'many' => $this->many($work),
            'huge' => $this->huge($work),
            'hostile' => $this->hostile($work),
            'link-out' => $this->linkOut($work),
            default => throw new \InvalidArgumentException("There is no special card $key."),
        };
        if ($key === 'unreadable') {
            $image = $this->image($work);
            CardBench::remove($work);
            $work = $image;
        }
        rename($work, $made);

        return $made;
    }

    private function card(string $name): string
    {
        $folder = $this->library . '/' . $name;

        return is_dir($folder)
            ? $folder
            : throw new \InvalidArgumentException("The demo card $name is not made yet. Run ./cartella start once.");
    }

    /** @param  list<string>  $clips */
    private function clips(string $work, string $roll, array $clips, string $device, string $prefix = ''): void
    {
        foreach ($clips as $number => $clip) {
            $from = $this->find($clip);
            copy($from, sprintf('%s/%s%sC%03d.mov', $work, $prefix, $roll, $number + 1));
            touch(sprintf('%s/%s%sC%03d.mov', $work, $prefix, $roll, $number + 1), (int) filemtime($from));
        }
        file_put_contents("$work/{$roll}_REPORT.TXT", "ROLL $roll\r\nDEVICE camera $device\r\n");
    }

    private function find(string $clip): string
    {
        foreach (new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator($this->library, \FilesystemIterator::SKIP_DOTS)) as $file) {
            if ($file->getFilename() === $clip) {
                return $file->getPathname();
            }
        }
        throw new \InvalidArgumentException("The demo clip $clip is not made yet. Run ./cartella start once.");
    }

    private function moreOnA001(string $work): void
    {
        CardBench::copy($this->card('A001'), $work, true);
        $folder = dirname(substr($this->find('A001C001.mov'), strlen($this->card('A001')) + 1));
        foreach (['A002C001.mov', 'A002C002.mov', 'A002C003.mov'] as $number => $clip) {
            copy($this->find($clip), sprintf('%s/%s/A001C%03d.mov', $work, $folder, 91 + $number));
        }
    }

    /** A recording whose four tracks lie in a file each, and one that goes on in a second file. */
    private function parts(string $work): void
    {
        $whole = $this->find('21-T01.wav');
        $reference = 10 * 3600 * 48_000;
        foreach (range(0, 3) as $track) {
            self::run([
                'ffmpeg',
                '-v',
                'error',
                '-nostdin',
                '-y',
                '-i',
                $whole,
                '-t',
                '20',
                '-af',
                "pan=mono|c0=c$track",
                '-c:a',
                'pcm_s24le',
                '-write_bext',
                '1',
                '-metadata',
                "time_reference=$reference",
                '-metadata',
                'origination_date=2026-10-06',
                '-metadata',
                'origination_time=10:00:00',
                sprintf('%s/S010T01_%d.wav', $work, $track + 1),
            ]);
        }
        foreach ([['S010T02.wav', 20, 15], ['S010T02_2.wav', 35, 10]] as [$name, $from, $length]) {
            self::run([
                'ffmpeg',
                '-v',
                'error',
                '-nostdin',
                '-y',
                '-ss',
                (string) $from,
                '-i',
                $whole,
                '-t',
                (string) $length,
                '-c:a',
                'pcm_s24le',
                '-write_bext',
                '1',
                '-metadata',
                'time_reference=' . ($reference + $from * 48_000),
                '-metadata',
                'origination_date=2026-10-06',
                '-metadata',
                'origination_time=10:00:' . $from,
                "$work/$name",
            ]);
        }
        file_put_contents("$work/S010T02.txt", "boom and two lavs\r\n");
        file_put_contents("$work/S010_REPORT.TXT", "ROLL S010\r\nDEVICE recorder S\r\n");
    }

    private function many(string $work): void
    {
        $block = random_bytes(8000);
        for ($file = 0; $file < self::SMALL_FILES; $file++) {
            $folder = sprintf('%s/%02d', $work, intdiv($file, 100));
            is_dir($folder) || mkdir($folder);
            file_put_contents(sprintf('%s/M%04d.dat', $folder, $file), pack('V', $file) . $block);
        }
    }

    private function huge(string $work): void
    {
        $file = fopen($work . '/A012C001.mxf', 'wb');
        ftruncate($file, self::HUGE_BYTES);
        fclose($file);
    }

    private function hostile(string $work): void
    {
        mkdir($work . '/ROLL');
        foreach (
            [
                "two\nlines.mov",
                '-rf.mov',
                str_repeat('n', 251) . '.mov',
                '..mov',
                "caf\u{E9}.mov",
                "cafe\u{301}.mov",
                'Take.mov',
                'TAKE.mov',
                'aux.mov',
                'what?.mov',
                'end .',
                '<b>&amp;"quoted".mov',
                '$(id).mov',
            ]
            as $name
        ) {
            file_put_contents($work . '/ROLL/' . $name, $name);
        }
    }

    private function linkOut(string $work): void
    {
        $this->clips($work, 'L010', ['A001C001.mov'], 'A');
        symlink('/etc/hostname', $work . '/L010C002.mov');
        symlink('..', $work . '/above');
    }

    /**
     * A file system image in which the first clip has a block that cannot be unpacked. Only packed blocks can be told
     * to be bad, and a picture's are not packed any further, so the clip gets a free box of text before its index.
     */
    private function image(string $work): string
    {
        $clip = $work . '/B010C001.mov';
        $content = (string) file_get_contents($clip);
        $index = (int) strrpos($content, 'moov') - 4;
        $text = substr(base64_encode(random_bytes(self::FREE_BYTES)), 0, self::FREE_BYTES);
        $first = dirname($work) . '/.first';
        CardBench::remove($first);
        mkdir($first);
        file_put_contents(
            $first . '/B010C001.mov',
            substr($content, 0, $index) . pack('N', 8 + strlen($text)) . 'free' . $text . substr($content, $index),
        );
        touch($first . '/B010C001.mov', (int) filemtime($clip));
        unlink($clip);
        $image = dirname($work) . '/.making-unreadable.image';
        // The bad clip alone first, so that its blocks lie at the image's beginning; the others are added behind it.
        self::run(['mksquashfs', $first, $image, '-noappend', '-no-fragments', '-comp', 'gzip', '-quiet', '-no-progress']);
        self::run(['mksquashfs', $work, $image, '-no-fragments', '-quiet', '-no-progress']);
        CardBench::remove($first);
        $stream = fopen($image, 'c+b');
        fseek($stream, $index + (1 << 20));
        fwrite($stream, random_bytes(4096));
        fclose($stream);

        return $image;
    }

    /** @param  list<string>  $command */
    private static function run(array $command): void
    {
        $process = proc_open($command, [['file', '/dev/null', 'r'], ['file', '/dev/null', 'w'], ['pipe', 'w']], $pipes);
        if (!is_resource($process)) {
            throw new \InvalidArgumentException($command[0] . ' is not installed.');
        }
        $error = (string) stream_get_contents($pipes[2]);
        if (proc_close($process) !== 0) {
            throw new \InvalidArgumentException($command[0] . ' failed: ' . trim($error));
        }
    }
}
