<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

use Opis\JsonSchema\Errors\ValidationError;
use Opis\JsonSchema\Validator;

/**
 * Holds values against a JSON Schema and says in words what is wrong with them.
 */
final class SchemaCheck
{
    private const MOST_ERRORS = 10_000;

    private readonly Validator $validator;

    /** @param  object  $schema  the decoded schema */
    public function __construct(object $schema, private readonly string $id)
    {
        $this->validator = new Validator(null, self::MOST_ERRORS, false);
        $this->validator->resolver()?->registerRaw($schema, $id);
    }

    /**
     * @param  mixed  $value  decoded with objects as objects
     * @param  string  $part  the definition that it is held against, or '' for the whole schema
     * @param  string  $pointer  where the value stands
     */
    public function check(mixed $value, string $part, string $pointer, Problems $problems): void
    {
        $error = $this->validator->validate($value, $part === '' ? $this->id : "{$this->id}#/\$defs/{$part}")->error();
        if ($error !== null) {
            $this->collect($error, $pointer, $problems);
        }
    }

    private function collect(ValidationError $error, string $pointer, Problems $problems): void
    {
        if ($error->subErrors() !== []) {
            foreach ($error->subErrors() as $part) {
                if ($part instanceof ValidationError) {
                    $this->collect($part, $pointer, $problems);
                }
            }

            return;
        }
        $place = $pointer;
        foreach ($error->data()->fullPath() as $step) {
            $place .= '/'.self::escaped((string) $step);
        }
        $arguments = $error->args();
        $list = fn (string $name): array => array_values(array_filter((array) ($arguments[$name] ?? []), is_string(...)));
        if ($error->keyword() === 'additionalProperties') {
            // The library also lists members that are known but wrong in themselves, and told of already.
            $schema = $error->schema()->info()->data();
            $known = is_object($schema) && isset($schema->properties) ? array_keys((array) $schema->properties) : [];
            foreach (array_diff($list('properties'), $known) as $name) {
                $problems->add("{$place}/".self::escaped($name), 'unknown-member', "There is no member '{$name}' here.");
            }

            return;
        }
        if ($error->keyword() === 'required') {
            foreach ($list('missing') as $name) {
                $problems->add($place, 'missing-member', "The member '{$name}' is missing.");
            }

            return;
        }
        $value = $error->data()->value();
        $shown = is_scalar($value) || $value === null ? json_encode($value, JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_PARTIAL_OUTPUT_ON_ERROR) : 'this';
        [$code, $words] = match ($error->keyword()) {
            'type' => ['wrong-type', 'must be '.implode(' or ', $list('expected'))],
            'pattern' => ['malformed', 'does not have the form that is needed here'],
            'enum', 'const' => ['not-allowed', 'is not one of the values allowed here'],
            'minimum', 'maximum' => ['out-of-range', 'is out of range'],
            'minLength' => ['empty', 'must not be empty'],
            'maxLength' => ['too-long', 'is too long'],
            default => ['invalid', 'is not valid here'],
        };
        $problems->add($place, $code, mb_strimwidth((string) $shown, 0, 60, '…')." {$words}.");
    }

    private static function escaped(string $name): string
    {
        return str_replace(['~', '/'], ['~0', '~1'], $name);
    }
}
