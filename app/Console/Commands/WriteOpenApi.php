<?php

declare(strict_types=1);

namespace App\Console\Commands;

use Illuminate\Console\Command;
use OpenApi\Annotations\Schema;
use OpenApi\Generator;

final class WriteOpenApi extends Command
{
    protected $signature = 'openapi {file=docs/formats/openapi.json}';

    protected $description = 'Write the description of the API from the attributes on its controllers';

    public function handle(): int
    {
        $openApi = Generator::scan([base_path('app')], ['version' => '3.1.0']) ?? throw new \RuntimeException('The API has no description.');
        foreach ($openApi->components->schemas as $schema) {
            $this->requireAll($schema);
        }
        /** @var string $file */
        $file = $this->argument('file');
        file_put_contents(str_starts_with($file, '/') ? $file : base_path($file), $openApi->toJson()."\n");

        return self::SUCCESS;
    }

    /** What a resource has, it always gives: absent values are null. */
    private function requireAll(Schema $schema): void
    {
        if (! Generator::isDefault($schema->properties) && Generator::isDefault($schema->required)) {
            $schema->required = array_map(fn ($property): string => $property->property, $schema->properties);
        }
    }
}
