<?php

declare(strict_types=1);

namespace Tests\Reference;

use JadeStep\Core\Exchange\Exception\InvalidDocument;
use JadeStep\Core\Exchange\Format;
use JadeStep\Core\Exchange\Gate;
use JadeStep\Core\Exchange\PlanDocument;
use JadeStep\Core\Route\Planner;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Tests\Support\TemporaryFolder;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

/** python3-jsonschema (Debian) must say of every document what our own door says of it. */
final class SchemaAgreementTest extends TestCase
{
    use TemporaryFolder;

    private const SCRIPT = <<<'PY'
        import json, sys
        from jsonschema import Draft202012Validator
        validators = {}
        for line in sys.stdin:
            case = json.loads(line)
            if case["schema"] not in validators:
                schema = json.load(open(case["schema"]))
                Draft202012Validator.check_schema(schema)
                validators[case["schema"]] = Draft202012Validator(schema)
            print("valid" if validators[case["schema"]].is_valid(case["document"]) else "broken")
        PY;

    public function test_both_validators_agree_on_valid_and_on_broken_documents(): void
    {
        $cases = self::cases();
        $lines = implode(
            "\n",
            array_map(
                static fn (array $c): string => json_encode(
                    ['schema' => $c[0]->schemaFile(), 'document' => $c[1]],
                    JSON_THROW_ON_ERROR,
                ),
                $cases,
            ),
        );
        $python = new Process(['/usr/bin/python3', '-c', self::SCRIPT], null, null, $lines, 600);
        $python->mustRun();

        $ours = array_map(static fn (array $c): string => self::judge($c[0], $c[1]), $cases);

        self::assertSame($ours, explode("\n", trim($python->getOutput())));
        self::assertGreaterThan(150, count(array_keys($ours, 'broken', true)));
        self::assertGreaterThan(3, count(array_keys($ours, 'valid', true)));
    }

    private static function judge(Format $format, mixed $document): string
    {
        try {
            Gate::check($format, $document);

            return 'valid';
        } catch (InvalidDocument) {
            return 'broken';
        }
    }

    /** @return list<array{Format, mixed}> good documents, and each of them broken at every place in turn */
    private static function cases(): array
    {
        $catalogue = Sample::catalogue([
            Sample::build(
                '8.7.0',
                '8G210',
                [['2026-05-04T17:00:00Z', null]],
                ['storeSchemas' => ['messages' => 14], 'inPlaceFrom' => '>=7.0 <8.7'],
            ),
        ]);
        $situation = Sample::situation([
            'kinds' => [Sample::stock('photos')],
            'apps' => [['id' => 'a', 'name' => 'A', 'minimumOs' => '9.9.0']],
        ]);
        $plan = PlanDocument::write((new Planner(Sample::almanac($catalogue)))->plan(Sample::read($situation)));
        $cases = [];
        $documents = [[Format::Catalogue, $catalogue], [Format::Situation, $situation], [Format::Plan, $plan]];
        foreach ($documents as [$format, $document]) {
            $text = json_encode($document, JSON_THROW_ON_ERROR);
            $cases[] = [$format, json_decode($text)];
            foreach (self::places(json_decode($text)) as $path) {
                $cases[] = [$format, self::change(json_decode($text), $path, ['not', 'this'])];
                $cases[] = [$format, self::change(json_decode($text), [...array_slice($path, 0, -1), 'misspelt'], 1)];
            }
        }

        return $cases;
    }

    /** @return list<list<string>> the path of every field of every object */
    private static function places(mixed $value): array
    {
        $found = [];
        foreach (is_object($value) || is_array($value) ? (array) $value : [] as $key => $child) {
            is_object($value) && $found[] = [(string) $key];
            foreach (self::places($child) as $below) {
                $found[] = [(string) $key, ...$below];
            }
        }

        return $found;
    }

    /** @param  list<string>  $path */
    private static function change(mixed $document, array $path, mixed $value): mixed
    {
        $key = array_shift($path);
        if ($path !== []) {
            $value = self::change(is_array($document) ? $document[$key] : $document->{$key}, $path, $value);
        }
        is_array($document) ? $document[$key] = $value : $document->{$key} = $value;

        return is_array($document) && ! array_is_list($document) ? (object) $document : $document;
    }
}
