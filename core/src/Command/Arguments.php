<?php

declare(strict_types=1);

namespace Cartella\Core\Command;

/** The options and operands of one command; `--` ends the options. */
final readonly class Arguments
{
    /**
     * @param  array<string, string|true>  $options
     * @param  list<string>  $operands
     */
    private function __construct(private array $options, public array $operands) {}

    /**
     * @param  list<string>  $words
     * @param  array<string, bool>  $known  option name, with `--` or `-`, to whether it takes a value
     *
     * @throws BadUse for an unknown option, or one without its value
     */
    public static function parse(array $words, array $known): self
    {
        $options = $operands = [];
        for ($i = 0; $i < count($words); $i++) {
            $word = $words[$i];
            if ($word === '--') {
                array_push($operands, ...array_slice($words, $i + 1));
                break;
            }
            if ($word === '-' || $word === '' || $word[0] !== '-') {
                $operands[] = $word;

                continue;
            }
            [$name, $value] = str_starts_with($word, '--') && str_contains($word, '=') ? explode('=', $word, 2) : [$word, null];
            if (!array_key_exists($name, $known)) {
                throw BadUse::because(sprintf('The option %s is not known here.', BadUse::quote($name)));
            }
            if (!$known[$name]) {
                $options[$name] = true;
            } elseif ($value !== null || isset($words[++$i])) {
                $options[$name] = $value ?? $words[$i];
            } else {
                throw BadUse::because(sprintf('The option %s needs a value.', $name));
            }
        }

        return new self($options, $operands);
    }

    public function has(string $name): bool
    {
        return isset($this->options[$name]);
    }

    public function value(string $name): ?string
    {
        $value = $this->options[$name] ?? null;

        return is_string($value) ? $value : null;
    }

    /** @throws BadUse if the option is not given */
    public function required(string $name): string
    {
        return $this->value($name) ?? throw BadUse::because(sprintf('The option %s is needed.', $name));
    }

    /** @throws BadUse if there is not exactly one operand */
    public function only(string $what): string
    {
        return count($this->operands) === 1 ? $this->operands[0] : throw BadUse::because(sprintf('Exactly one %s is needed.', $what));
    }
}
