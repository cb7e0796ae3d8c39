<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Batches\MakeSchedule;
use App\Models\Batch;
use App\Models\User;
use Illuminate\Routing\Route;
use Illuminate\Testing\TestResponse;
use JadeStep\Core\Job\StepCode;
use Opis\JsonSchema\Errors\ErrorFormatter;
use Opis\JsonSchema\Validator;
use Symfony\Component\Yaml\Yaml;
use Tests\Support\RunningSystem;

/** The API against its own OpenAPI document. */
final class OpenApiTest extends FeatureTestCase
{
    private const BASE = 'https://jade-step.invalid/';

    public function test_every_route_is_documented_and_every_documented_route_is_there(): void
    {
        $routes = [];
        foreach ($this->app['router']->getRoutes() as $route) {
            assert($route instanceof Route);
            if (str_starts_with($route->uri(), 'api/v1/')) {
                $routes[] = strtolower($route->methods()[0]).' '.substr($route->uri(), 6);
            }
        }
        $documented = [];
        foreach (self::document()->paths as $path => $operations) {
            foreach (array_keys((array) $operations) as $method) {
                $documented[] = "{$method} {$path}";
            }
        }

        self::assertEqualsCanonicalizing($documented, $routes);
    }

    public function test_answers_along_a_whole_crossing_keep_to_their_schemas(): void
    {
        $this->assertKeepsTo('Problem', $this->getJson('/api/v1/session'), 'application/problem+json');
        $this->assertKeepsTo('Person', $this->signedIn()->getJson('/api/v1/session'));
        $this->assertKeepsTo('Shop', $this->getJson('/api/v1/shop'));
        $this->assertKeepsTo('FoundThings', $this->getJson('/api/v1/find?words=fenn'));
        $this->assertKeepsTo('RefreshResults', $this->postJson('/api/v1/almanac/refresh'));
        $this->assertKeepsTo('Bench', $this->getJson('/api/v1/bench'));
        $batch = $this->postJson('/api/v1/batches', [
            'name' => 'Ferries of Saturday',
            'startsAt' => '2026-12-01T08:00:00Z',
            'workshop' => [
                'ports' => 2, 'technicians' => ['Maren'], 'days' => ['sat'], 'from' => '08:00', 'until' => '17:00',
            ],
            'csv' => "serial,hardwareId,version,goal\nSKL-OA01,FN6-1,9.3.0,newest in 8",
            'good' => 1,
        ]);
        $this->assertKeepsTo('FleetBatch', $batch);
        $this->app->make(MakeSchedule::class)->make(Batch::query()->findOrFail($batch->json('id')));
        $at = "/api/v1/batches/{$batch->json('id')}";
        $this->assertKeepsTo('FleetBatch', $this->getJson($at));
        $this->assertKeepsTo('BatchWhatIf', $this->postJson("{$at}/what-if", ['ports' => 1, 'technicians' => 1]));
        $this->assertKeepsTo('Forecasts', $this->getJson('/api/v1/almanac/forecasts'));
        $this->assertKeepsTo('Windows', $this->getJson('/api/v1/almanac/models/WK3-1/windows'));
        $this->assertKeepsTo('Almanac', $this->getJson('/api/v1/almanac'));
        $this->assertKeepsTo('Windows', $this->getJson('/api/v1/almanac/models/FN7-1/windows'));
        $this->assertKeepsTo('Identity', $this->postJson('/api/v1/identify', ['modelName' => 'Fenn 7']));
        $byHand = $this->postJson('/api/v1/intake', [
            'serial' => 'SKL-0900',
            'modelName' => 'Fenn 7',
            'version' => '9.3',
        ]);
        $this->assertKeepsTo('Job', $byHand);
        $this->assertKeepsTo(
            'Batch',
            $this->postJson('/api/v1/intake/batch/preview', [
                'csv' => "serial,modelName,version,goal\nSKL-0901,Fenn 7,9.3,8.7\n,Fenn 7,nine,8.7",
            ]),
        );
        $this->assertKeepsTo(
            'FilePreview',
            $this->postJson('/api/v1/almanac/import/preview', [
                'text' => $this->get('/api/v1/almanac/vendors/osterly/builds.csv')->getContent(),
                'vendor' => 'osterly',
                'fileName' => 'b.csv',
            ]),
        );
        $this->assertKeepsTo(
            'Vendor',
            $this->signedIn(User::factory()->create(['role' => 'lead']))->putJson('/api/v1/vendors/osterly', [
                'name' => 'Osterly',
                'address' => config('jade.demo_vendors.osterly.address'),
                'refreshMinutes' => 60,
            ]),
        );
        $opened = $this->postJson('/api/v1/jobs', ['serial' => self::SERIAL]);
        $this->assertKeepsTo('Job', $opened);
        $this->assertKeepsTo(
            'Problem',
            $this->postJson('/api/v1/jobs', ['serial' => self::SERIAL]),
            'application/problem+json',
        );
        $job = \App\Models\BenchJob::query()->findOrFail($opened->json('id'));
        $this->acceptRoute($job);
        $this->assertKeepsTo('Windows', $this->getJson("/api/v1/jobs/{$job->id}/windows"));
        $this->assertKeepsTo('Since', $this->getJson("/api/v1/jobs/{$job->id}/since"));
        $this->workUntil($job, StepCode::CrossLine);
        $this->assertKeepsTo('Job', $this->putJson("/api/v1/jobs/{$job->id}/attestations/passcode-known"));
        $this->assertKeepsTo(
            'Problem',
            $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => self::SERIAL]),
            'application/problem+json',
        );
        $this->putJson("/api/v1/jobs/{$job->id}/attestations/owner-account-at-hand");
        $this->assertKeepsTo('Job', $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => self::SERIAL]));
        $this->workUntil($job, StepCode::HandOver);
        $this->assertKeepsTo('Job', $this->getJson("/api/v1/jobs/{$job->id}"));
        $this->assertKeepsTo('Return', $this->getJson("/api/v1/jobs/{$job->id}/return"));
        $this->assertKeepsTo('Missing', $this->getJson("/api/v1/jobs/{$job->id}/missing"));
        $this->assertKeepsTo('Evidence', $this->getJson('/api/v1/evidence?osLine=tarn&from=9&to=8'));
        $this->assertKeepsTo('HandOver', $this->postJson("/api/v1/jobs/{$job->id}/aftercare/look"));
        $this->assertKeepsTo(
            'HandOver',
            $this->putJson("/api/v1/jobs/{$job->id}/aftercare/cards-again", ['done' => true]),
        );
        $this->assertKeepsTo('Sheet', $this->getJson("/api/v1/jobs/{$job->id}/sheet"));
        $this->assertKeepsTo('Job', $this->postJson("/api/v1/jobs/{$job->id}/hand-over"));
        $this->assertKeepsTo('Jobs', $this->getJson('/api/v1/jobs?find=fenn&state=ended'));
        $this->assertKeepsTo('Journal', $this->getJson('/api/v1/journal'));
        $this->assertKeepsTo('Bench', $this->getJson('/api/v1/bench'));
        $this->assertKeepsTo('Forecasts', $this->getJson('/api/v1/almanac/forecasts'));
        $this->assertKeepsTo('Windows', $this->getJson('/api/v1/almanac/models/WK3-1/windows'));
        $this->assertKeepsTo('Problem', $this->getJson('/api/v1/jobs/999999'), 'application/problem+json');
    }

    /** @param  TestResponse<\Symfony\Component\HttpFoundation\Response>  $response */
    private function assertKeepsTo(string $schema, TestResponse $response, string $type = 'application/json'): void
    {
        $validator = new Validator(null, 10, false);
        $resolver = $validator->resolver();
        assert($resolver !== null);
        $document = self::document();
        $document->{'$id'} = self::BASE.'openapi.json';
        $resolver->registerRaw($document);
        foreach (['plan', 'situation', 'hand-over', 'batch', 'schedule'] as $name) {
            $resolver->registerFile(
                self::BASE."formats/{$name}.schema.json",
                RunningSystem::root()."/docs/formats/{$name}.schema.json",
            );
        }

        $error = $validator
            ->validate(
                json_decode((string) $response->getContent()),
                (object) ['$ref' => self::BASE."openapi.json#/components/schemas/{$schema}"],
            )
            ->error();

        self::assertNull(
            $error,
            $error === null
                ? ''
                : json_encode((new ErrorFormatter)->format($error), JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES)
                    ."\n"
                    .substr((string) $response->getContent(), 0, 600),
        );
        self::assertSame($type, $response->headers->get('Content-Type'));
    }

    private static function document(): \stdClass
    {
        return Yaml::parseFile(RunningSystem::root().'/docs/openapi.yaml', Yaml::PARSE_OBJECT_FOR_MAP);
    }
}
