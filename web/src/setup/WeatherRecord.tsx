import { climateEndpoints, type GardenView } from '@border/contract'
import { celsius, dayMonth, fromDayOfYear, yearOf, zoneOf } from '@border/core'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { BringCsv } from './BringCsv.tsx'
import { KnownClimateForm } from './KnownClimateForm.tsx'
import { SoilThermometer } from './SoilThermometer.tsx'

type ClimateView = NonNullable<GardenView['climate']>

/** What the garden's years are like, by its weather record and its soil thermometers. */
export function WeatherRecord() {
  const { view, isHead } = useGardenContext()
  const bring = useGardenWrite(
    climateEndpoints.bringWeather,
    { gardenId: view.garden.id },
    'Record brought in; windows follow it from now on.',
  )
  const ask = useGardenWrite(
    climateEndpoints.askWeatherService,
    { gardenId: view.garden.id },
    (_, { isSimulated }) =>
      isSimulated
        ? 'The service has nothing measured for this place: what it sent is simulated.'
        : 'The service’s record is here, and goes on by itself; windows follow it.',
  )
  const { climate } = view
  return (
    <section id="climate">
      <h2>Climate</h2>
      {climate ? (
        <>
          <p>
            {view.climateSource}: {climate.years} whole years, {climate.firstYear} to {climate.lastYear}.
            {climate.isSimulated &&
              ' Nobody measured it: it is made up from the usual years of the towns about it, and every date that hangs on it is a guess.'}
          </p>
          <ClimateFacts climate={climate} />
        </>
      ) : (
        <p>
          No record of at least three whole years, so no windows can be worked out. Bring one as weather.csv.
        </p>
      )}
      {isHead && (
        <div className="row">
          <BringCsv loading={bring.isPending} onText={(weather) => bring.mutate({ weather })}>
            Bring a record from weather.csv
          </BringCsv>
          <Button loading={ask.isPending} onClick={() => ask.mutate({})}>
            Ask the weather service
          </Button>
        </div>
      )}
      {climate && <KnownClimateForm />}
      {climate && <SoilThermometer />}
    </section>
  )
}

/** Its frosts, its coldest night and its soil, in a usual year. */
function ClimateFacts({ climate }: { climate: ClimateView }) {
  const { on } = useGardenContext()
  const date = (doy: number) => dayMonth(fromDayOfYear(yearOf(on), Math.round(doy)))
  const { lastFrost, firstFrost, known, meanAnnualMinimumC: coldestC, soilC } = climate
  const frostsKnown = known.frost ? 'as you say: ' : ''
  return (
    <dl className="facts">
      <Fact
        term="Last frost of spring"
        value={
          lastFrost
            ? `${frostsKnown}by ${date(lastFrost.p50)} in half the years, by ${date(lastFrost.p90)} in nine of ten`
            : 'none in most years'
        }
      />
      <Fact
        term="First frost of autumn"
        value={
          firstFrost
            ? `${frostsKnown}from ${date(firstFrost.p50)} in half the years, from ${date(firstFrost.p10)} in one of ten`
            : 'none in most years'
        }
      />
      <Fact
        term="Coldest night of a usual year"
        value={`${celsius(Math.round(coldestC * 10) / 10)}, zone ${zoneOf(coldestC)}${known.winter ? ', as you say' : ''}`}
      />
      <Fact
        term="Soil at 10 cm"
        value={`${Math.min(...soilC).toFixed(1)} to ${Math.max(...soilC).toFixed(1)} °C through the year`}
      />
    </dl>
  )
}

const Fact = ({ term, value }: { term: string; value: string }) => (
  <div>
    <dt>{term}</dt>
    <dd>{value}</dd>
  </div>
)
