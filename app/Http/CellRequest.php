<?php

declare(strict_types=1);

namespace App\Http;

use App\Figures\MeasurementFacts;
use App\Figures\MeasurementStore;
use App\Models\Measurement;
use App\Models\User;
use Illuminate\Foundation\Http\FormRequest;
use InvalidArgumentException;
use Kybernet\Core\Calendar\Period;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;

/**
 * A request about one period of one KPI in one unit, which the route names.
 */
abstract class CellRequest extends FormRequest
{
    private ?MeasurementFacts $facts = null;

    public function facts(): MeasurementFacts
    {
        $measurement = $this->route('measurement');

        return $this->facts ??= app(MeasurementStore::class)->described([$measurement instanceof Measurement ? $measurement->id : 0])[$measurement->id ?? 0]
            ?? throw new NotFoundHttpException;
    }

    public function period(): Period
    {
        /** @var string $period */
        $period = $this->route('period');
        try {
            return Period::parse($period, $this->facts()->measurement->definition->frequency);
        } catch (InvalidArgumentException) {
            throw new NotFoundHttpException;
        }
    }

    public function person(): User
    {
        /** @var User $user no route lets anybody else through */
        $user = $this->user();

        return $user;
    }
}
