<?php

declare(strict_types=1);

namespace Cartella\Core\Look;

use Cartella\Core\Look\Exception\InvalidLook;
use Cartella\Core\UnableToReadXml;
use Cartella\Core\Xml;

/**
 * One primary colour correction: slope, offset and power for red, green and blue, then saturation (ASC CDL 1.2).
 *
 * Works on values from 0 to 1 as they are shown. Slope and saturation are 0 to 100, offset -10 to 10, power above 0 to
 * 100; errors are {@see InvalidLook}. Reads `.cc`, `.ccc` and `.cdl`, which are XML without entities.
 */
final readonly class Cdl
{
    public const SIZE_LIMIT = 1 << 20;

    /** Rec. 709 luma, as the standard weighs saturation. */
    private const LUMA = [0.2126, 0.7152, 0.0722];

    private const NAMESPACE = 'urn:ASC:CDL:v1.2';

    /**
     * @param  array{float, float, float}  $slope  red, green, blue
     * @param  array{float, float, float}  $offset
     * @param  array{float, float, float}  $power
     */
    private function __construct(public array $slope, public array $offset, public array $power, public float $saturation) {}

    /**
     * @param  list<float|int>  $slope
     * @param  list<float|int>  $offset
     * @param  list<float|int>  $power
     *
     * @throws InvalidLook if a value is out of its range
     */
    public static function of(array $slope, array $offset, array $power, float $saturation): self
    {
        foreach (
            [
                'slope' => [$slope, 0.0, 100.0],
                'offset' => [$offset, -10.0, 10.0],
                'power' => [$power, 0.001, 100.0],
                'saturation' => [[$saturation, 0.0, 0.0], 0.0, 100.0],
            ]
            as $field => [$values, $low, $high]
        ) {
            if (count($values) !== 3) {
                throw InvalidLook::value($field, 'has not three values');
            }
            foreach ($values as $value) {
                if (!is_finite((float) $value) || $value < $low || $value > $high) {
                    throw InvalidLook::value($field, sprintf('lies outside of %g to %g', $low, $high));
                }
            }
        }
        $three = static fn(array $values): array => [(float) $values[0], (float) $values[1], (float) $values[2]];

        return new self($three($slope), $three($offset), $three($power), $saturation);
    }

    public static function identity(): self
    {
        return new self([1.0, 1.0, 1.0], [0.0, 0.0, 0.0], [1.0, 1.0, 1.0], 1.0);
    }

    /**
     * Every correction of a file, in its order.
     *
     * @param  string  $text  a `.cc`, `.ccc` or `.cdl` file, 1 MB at most
     * @return array<string, self> by id; one without an id has its number from 1
     *
     * @throws InvalidLook if it is no such file, declares entities, or a value is out of its range
     */
    public static function read(string $text): array
    {
        if (strlen($text) > self::SIZE_LIMIT) {
            throw InvalidLook::file('it is larger than a look can be');
        }
        try {
            $root = Xml::parse(ltrim($text));
        } catch (UnableToReadXml $trouble) {
            throw InvalidLook::file($trouble->reason());
        }
        $found = [];
        foreach ($root->getName() === 'ColorCorrection' ? [$root] : ($root->xpath('//*[local-name()="ColorCorrection"]') ?: []) as $node) {
            $id = trim((string) ($node['id'] ?? ''));
            $found[$id === '' || isset($found[$id]) ? (string) (count($found) + 1) : $id] = self::ofNode($node);
        }

        return $found === [] ? throw InvalidLook::file('it holds no colour correction') : $found;
    }

    /** @param  array<string, self>  $looks  by id */
    public static function collection(array $looks): string
    {
        $out = new \XMLWriter();
        $out->openMemory();
        $out->setIndent(true);
        $out->startDocument('1.0', 'UTF-8');
        $out->startElement('ColorCorrectionCollection');
        $out->writeAttribute('xmlns', self::NAMESPACE);
        foreach ($looks as $id => $look) {
            $out->startElement('ColorCorrection');
            $out->writeAttribute('id', (string) $id);
            $out->startElement('SOPNode');
            foreach (['Slope' => $look->slope, 'Offset' => $look->offset, 'Power' => $look->power] as $name => $values) {
                $out->writeElement($name, implode(' ', array_map(self::number(...), $values)));
            }
            $out->endElement();
            $out->startElement('SATNode');
            $out->writeElement('Saturation', self::number($look->saturation));
            $out->endElement();
            $out->endElement();
        }
        $out->endElement();

        return $out->outputMemory();
    }

    /**
     * @param  array{float, float, float}  $rgb  0 to 1
     * @return array{float, float, float} 0 to 1
     */
    public function apply(array $rgb): array
    {
        $out = [];
        foreach ($rgb as $channel => $value) {
            $out[] = max(0.0, min(1.0, $value * $this->slope[$channel] + $this->offset[$channel])) ** $this->power[$channel];
        }
        $luma = self::LUMA[0] * $out[0] + self::LUMA[1] * $out[1] + self::LUMA[2] * $out[2];

        return [
            max(0.0, min(1.0, $luma + $this->saturation * ($out[0] - $luma))),
            max(0.0, min(1.0, $luma + $this->saturation * ($out[1] - $luma))),
            max(0.0, min(1.0, $luma + $this->saturation * ($out[2] - $luma))),
        ];
    }

    /**
     * @return array{slope: array{float, float, float}, offset: array{float, float, float}, power: array{float, float, float},
     *     saturation: float}
     */
    public function toArray(): array
    {
        return ['slope' => $this->slope, 'offset' => $this->offset, 'power' => $this->power, 'saturation' => $this->saturation];
    }

    /** As a comment of an edit decision list has it: `(1 1 1)(0 0 0)(1 1 1)`. */
    public function sop(): string
    {
        return implode(
            '',
            array_map(static fn(array $values): string => '(' . implode(' ', array_map(self::number(...), $values)) . ')', [
                $this->slope,
                $this->offset,
                $this->power,
            ]),
        );
    }

    public static function number(float $value): string
    {
        return rtrim(rtrim(sprintf('%.6F', $value), '0'), '.');
    }

    private static function ofNode(\SimpleXMLElement $node): self
    {
        $one = static fn(string $name): ?string => ($found = $node->xpath('.//*[local-name()="' . $name . '"]') ?: []) === []
            ? null
            : trim((string) $found[0]);
        $three = static function (string $name, float $usual) use ($one): array {
            $text = $one($name);
            if ($text === null) {
                return [$usual, $usual, $usual];
            }
            $values = preg_split('/\s+/', $text) ?: [];
            if (count($values) !== 3 || array_filter($values, static fn(string $value): bool => !is_numeric($value)) !== []) {
                throw InvalidLook::value(strtolower($name), 'is not three numbers');
            }

            return array_map(floatval(...), $values);
        };
        $saturation = $one('Saturation') ?? '1';
        if (!is_numeric($saturation)) {
            throw InvalidLook::value('saturation', 'is not a number');
        }

        return self::of($three('Slope', 1.0), $three('Offset', 0.0), $three('Power', 1.0), (float) $saturation);
    }
}
