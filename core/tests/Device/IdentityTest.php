<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Device;

use JadeStep\Core\Almanac\Model;
use JadeStep\Core\Device\Answers;
use JadeStep\Core\Device\Difference;
use JadeStep\Core\Device\Differences;
use JadeStep\Core\Device\Exception\UnreadableImei;
use JadeStep\Core\Device\Identity;
use JadeStep\Core\Device\Imei;
use JadeStep\Core\Device\Question;
use JadeStep\Core\Route\Planner;
use JadeStep\Core\Tests\Support\Sample;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Which device it is, from what people can tell while it is not plugged in. */
final class IdentityTest extends TestCase
{
    /**
     * @param  array{carrierTied?: bool, whereBought?: string, imei?: string}  $said
     * @param  list<string>  $left
     * @param  list<string>  $questions
     */
    #[DataProvider('answers')]
    public function test_answers_narrow_the_variants(string $name, array $said, array $left, array $questions): void
    {
        $identity = Identity::of(self::fleet(), $name, self::said($said));

        self::assertSame($left, array_map(static fn (Model $m): string => $m->hardwareId, $identity->candidates));
        self::assertSame($questions, array_map(static fn (Question $q): string => $q->value, $identity->questions));
        self::assertNull($identity->conflict);
    }

    /** @return iterable<string, array{string, array<string, mixed>, list<string>, list<string>}> */
    public static function answers(): iterable
    {
        yield 'the name alone: the IMEI would settle it, the place leaves two, the carrier two or three' => [
            'Fenn 7',
            [],
            ['FN7-1', 'FN7-2', 'FN7-3', 'FN7-4'],
            ['imei', 'where-bought', 'carrier-tied', 'plug-in'],
        ];
        yield 'the name is not case-sensitive' => [
            'fenn 7',
            ['carrierTied' => true],
            ['FN7-3', 'FN7-4'],
            ['where-bought', 'imei', 'plug-in'],
        ];
        yield 'tied and bought in the north' => [
            'Fenn 7',
            ['carrierTied' => true, 'whereBought' => 'North'],
            ['FN7-3'],
            [],
        ];
        yield 'untied leaves two that only the place or the IMEI tells apart' => [
            'Fenn 7',
            ['carrierTied' => false],
            ['FN7-1', 'FN7-2'],
            ['where-bought', 'imei', 'plug-in'],
        ];
        yield 'the IMEI alone' => ['', ['imei' => '352099110042013'], ['FN7-2'], []];
        foreach ([true, false] as $tied) {
            yield 'what the vendor does not say of a carrier fits '.($tied ? 'a tied' : 'an untied').' one' => [
                'Fenn 6',
                ['carrierTied' => $tied],
                ['FN6-1'],
                [],
            ];
        }
        yield 'what the vendor does not say of a place fits every place' => [
            'Mere 11',
            ['carrierTied' => true, 'whereBought' => 'West'],
            ['MR11-1'],
            [],
        ];
        yield 'a model with one variant needs no question' => ['Mere 11', [], ['MR11-1'], []];
    }

    /** @param  array{carrierTied?: bool, whereBought?: string, imei?: string}  $said */
    #[DataProvider('conflicts')]
    public function test_what_does_not_fit_together_is_said(string $name, array $said, string $words): void
    {
        $identity = Identity::of(self::fleet(), $name, self::said($said));

        self::assertSame([[], $words], [$identity->candidates, $identity->conflict]);
    }

    /** @return iterable<string, array{string, array<string, mixed>, string}> */
    public static function conflicts(): iterable
    {
        yield 'no such name' => [
            'Fenn 77',
            [],
            'No vendor here has a model of the name Fenn 77. Check the name, or refresh the almanac.',
        ];
        yield 'an IMEI of another model' => [
            'Fenn 7',
            ['imei' => '352098400057012'],
            'By its IMEI the device is Fenn 6 Nordic (FN6-1), not Fenn 7 Nordic, Fenn 7 Atlantic, Fenn 7 '
                .'Carrier-tied, Fenn 7 Carrier-tied south.',
        ];
        yield 'an IMEI that nobody knows' => [
            'Fenn 6',
            ['imei' => '490154203237518'],
            'No vendor here knows the type allocation code 49015420 of this IMEI, and it is none of Fenn 6 Nordic.',
        ];
        yield 'a place where none is sold' => [
            'Fenn 6',
            ['whereBought' => 'South'],
            'The answer to "Where was it bought?" fits none of Fenn 6 Nordic. Ask again, or plug the device in.',
        ];
    }

    /** @param  string  $words the start of the message */
    #[DataProvider('badImeis')]
    public function test_an_imei_that_cannot_be_is_refused_with_what_to_do(string $text, string $words): void
    {
        $this->expectException(UnreadableImei::class);
        $this->expectExceptionMessage($words);

        Imei::parse($text);
    }

    /** @return iterable<string, array{string, string}> */
    public static function badImeis(): iterable
    {
        yield 'a digit wrong' => ['352099110042014', 'The check digit of 352099110042014 does not fit'];
        yield 'two digits swapped' => ['352099110024013', 'The check digit of 352099110024013 does not fit'];
        yield 'no check digit' => ['35209911004201', '14 were given. The last one, the check digit, is missing.'];
        yield 'with a software version' => ['3520991100420101', 'type the 15-digit IMEI'];
        yield 'too short' => ['12345', 'An IMEI has 15 digits; 5 were given.'];
        yield 'letters' => ['35209911004201O', 'is not an IMEI'];
        yield 'nothing' => [' ', 'is not an IMEI'];
    }

    public function test_the_plan_of_an_unresolved_device_names_the_question_that_settles_it(): void
    {
        $plan = static fn (array $candidates, array $answered) => (new Planner(self::fleet()))->plan(
            Sample::read(
                Sample::situation([
                    'hardwareId' => null,
                    'identity' => ['candidates' => $candidates, 'answered' => $answered],
                ]),
            ),
        );

        $reason = $plan(['FN7-1', 'FN7-2'], ['carrier-tied'])->rejected[0]->reasons[0];
        self::assertSame(
            ['model-unresolved', ['hardwareIds' => ['FN7-1', 'FN7-2'], 'question' => 'where-bought']],
            [$reason->code->value, $reason->facts],
        );
        $reason = $plan(['FN7-1', 'FN7-2'], ['carrier-tied', 'where-bought', 'imei'])->rejected[0]->reasons[0];
        self::assertSame('plug-in', $reason->facts['question']);
    }

    public function test_what_was_said_is_held_against_what_the_device_tells(): void
    {
        $said = [
            'modelName' => 'Fenn 7',
            'hardwareId' => null,
            'version' => '9.3.0',
            'build' => 'unknown',
            'imei' => '352099110042013',
        ];
        $read = [
            'modelName' => 'fenn 7',
            'hardwareId' => 'FN7-2',
            'version' => '9.3.1',
            'build' => '9D60',
            'imei' => '352099110042013',
        ];

        self::assertEquals(
            [new Difference('version', 'Version', '9.3.0', '9.3.1')],
            Differences::between($said, $read),
        );
        self::assertSame([], Differences::between($said, ['version' => '9.3.0'] + $read));
    }

    /** @param  array{carrierTied?: bool, whereBought?: string, imei?: string}  $said */
    private static function said(array $said): Answers
    {
        return new Answers(
            $said['carrierTied'] ?? null,
            $said['whereBought'] ?? null,
            isset($said['imei']) ? Imei::parse($said['imei']) : null,
        );
    }

    private static function fleet(): \JadeStep\Core\Almanac\Almanac
    {
        $model = static fn (string $id, string $name, string $variant, string $tac, array $sold): array => [
            'hardwareId' => $id,
            'name' => $name,
            'variant' => $variant,
            'form' => 'phone',
            'osLine' => 'tarn',
            'tac' => [$tac],
            'recoverySequence' => [['action' => 'hold', 'target' => 'power', 'seconds' => 12]],
            'sold' => (object) $sold,
        ];

        return Sample::almanac(
            Sample::catalogue(
                [Sample::build('8.7.0', '8G210', [['2026-05-04T17:00:00Z', null]])],
                [
                    'models' => [
                        $model('FN7-1', 'Fenn 7', 'Nordic', '35209910', ['where' => ['North'], 'carrierTied' => false]),
                        $model('FN7-2', 'Fenn 7', 'Atlantic', '35209911', [
                            'where' => ['West'],
                            'carrierTied' => false,
                        ]),
                        $model('FN7-3', 'Fenn 7', 'Carrier-tied', '35209912', [
                            'where' => ['North'],
                            'carrierTied' => true,
                        ]),
                        $model('FN7-4', 'Fenn 7', 'Carrier-tied south', '35209913', [
                            'where' => ['South'],
                            'carrierTied' => true,
                        ]),
                        $model('FN6-1', 'Fenn 6', 'Nordic', '35209840', ['where' => ['North']]),
                        $model('MR11-1', 'Mere 11', 'Nordic', '35209700', []),
                    ],
                ],
            ),
        );
    }
}
