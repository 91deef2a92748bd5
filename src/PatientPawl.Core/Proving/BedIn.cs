using PatientPawl.Core.Reasoning;
using UnitsNet;

namespace PatientPawl.Core.Proving;

/// <summary>
/// What a bed-in series does to the rear rotors. A stop turns E = m (v1² - v2²) / 2 into heat; the rear axle takes its share, half in each rotor
/// of grey iron; between stops it cools towards the air by an exponential. The ceiling comes first: no number of stops goes over it.
/// </summary>
[Engine]
public static class BedIn
{
    /// <summary>Grey iron: 460 J/(kg K), from memory.</summary>
    private const double SpecificHeat = 460;

    private const double DefaultRearPercent = 30, DefaultCoolingSeconds = 300;
    private const double BandLow = 150, BandHigh = 300;

    // A firm stop that is not an emergency, and a drive that cools: ours, flagged as the series' defaults are.
    private const double Deceleration = 3, CoolDownSeconds = 300;

    /// <summary>Reckons a series.</summary>
    /// <param name="facts">What it is reckoned from.</param>
    /// <exception cref="InputException">A figure out of its range, or a speed over the road's limit.</exception>
    public static BedInAnswer Reckon(BedInFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        Check(facts);
        var series = facts.Series;
        double v1 = series.From.MetersPerSecond, v2 = series.To.MetersPerSecond, gap = series.Gap.Seconds, m = facts.Vehicle.Kilograms,
            rotor = facts.Rotor.Kilograms;
        double share = (facts.RearPercent ?? DefaultRearPercent) / 100,
            tau = (facts.CoolingTime ?? Duration.FromSeconds(DefaultCoolingSeconds)).Seconds, air = facts.AmbientCelsius;
        var energy = m * (v1 * v1 - v2 * v2) / 2;
        var rise = share * energy / (2 * rotor * SpecificHeat);
        var left = Math.Exp(-gap / tau);
        var ceiling = air + rise / (1 - left);
        var stopTime = (v1 - v2) / Deceleration;
        var stops = Stops(series, air, rise, left, stopTime);
        var end = stops[^1].AfterCelsius;
        var band = ceiling < BandLow ? BedInBand.OutOfReach : end < BandLow ? BedInBand.NotReached : end <= BandHigh ? BedInBand.Reached
            : BedInBand.TooHot;
        var total = Duration.FromSeconds(series.Stops * (stopTime + gap) + CoolDownSeconds);
        var distance = (int)Math.Round(series.Stops * ((v1 + v2) / 2 * stopTime + v1 * gap) + v1 * CoolDownSeconds);
        var says = Says(band, series, end, ceiling);
        var trail = new Trail("BedIn.Reckon")
            .Input("Series", series.Says, facts.FromMaker ? "typed" : "practice-bed-in")
            .Input("Car", $"{Figure.Of(m)} kg, rear rotors {Figure.Of(rotor)} kg each, air {Figure.Of(air)} °C");
        if (facts.RearPercent is null) trail.Default("Share of the rear axle", $"{Figure.Of(DefaultRearPercent)} %", "practice-bed-in");
        else trail.Input("Share of the rear axle", $"{Figure.Of(share * 100)} %");
        if (facts.CoolingTime is null) trail.Default("Cooling, time constant", $"{Figure.Of(DefaultCoolingSeconds)} s", "practice-bed-in");
        else trail.Input("Cooling, time constant", $"{Figure.Of(tau)} s");
        trail.Formula("Energy of a stop", "m (v1² - v2²) / 2", $"{Figure.Of(m)} x ({Figure.Of(v1, 2)}² - {Figure.Of(v2, 2)}²) / 2",
            $"{Figure.Of(energy / 1000, 1)} kJ", "bed-in-heat")
            .Formula("Rise of a rear rotor", "share x E / (2 x rotor x 460)",
                $"{Figure.Of(share, 2)} x {Figure.Of(energy, 0)} / (2 x {Figure.Of(rotor)} x 460)", $"{Figure.Of(rise, 1)} K a stop",
                "bed-in-heat")
            .Formula("Ceiling", "air + rise / (1 - exp(-gap / tau))",
                $"{Figure.Of(air)} + {Figure.Of(rise, 1)} / (1 - exp(-{Figure.Of(gap)} / {Figure.Of(tau)}))",
                $"{Figure.Of(ceiling, 0)} °C", "bed-in-heat")
            .Formula("After the last stop", "cooled, then heated, stop by stop", Figure.Count(series.Stops, "stop"),
                $"{Figure.Of(end, 0)} °C", "bed-in-heat")
            .Conclude(says).WouldChange("The pad maker's series: it wins.").WouldChange("A thermometer on the rotor after each stop.");
        return new(rise, ceiling, stops, band, BandLow, BandHigh, total, distance, says, Cautions(facts), trail.Done());
    }

    private static StopHeat[] Stops(BedInSeries series, double air, double rise, double left, double stopTime)
    {
        var stops = new StopHeat[series.Stops];
        var now = air;
        for (var i = 0; i < stops.Length; i++)
        {
            if (i > 0) now = air + (now - air) * left;
            stops[i] = new(i + 1, Duration.FromSeconds(i * (stopTime + series.Gap.Seconds)), now, now + rise);
            now += rise;
        }

        return stops;
    }

    private static string Says(BedInBand band, BedInSeries series, double end, double ceiling)
    {
        var reach = $"The rear rotors reach about {Figure.Of(end, 0)} °C";
        var usual = $"the usual {Figure.Of(BandLow)} to {Figure.Of(BandHigh)} °C";
        return band switch
        {
            BedInBand.OutOfReach =>
                $"{reach} and no number of stops takes them over {Figure.Of(ceiling, 0)} °C: {usual} is out of reach on a rear axle. "
                + "Drive the series all the same, and never faster or harder for the sake of heat.",
            BedInBand.NotReached => $"{reach} with {Figure.Count(series.Stops, "stop")}, under {usual}. Never faster for the sake of heat.",
            BedInBand.Reached => $"{reach}: within {usual}.",
            BedInBand.TooHot => $"{reach}, over {usual}: fewer stops, or longer between them.",
            _ => throw new ArgumentOutOfRangeException(nameof(band), band, "No such band."),
        };
    }

    private static string[] Cautions(BedInFacts facts) =>
    [
        "An empty, dry road with room to stop, a belt on everybody, nobody behind. A passenger counts, never the driver.",
        facts.LocalLimit is { } limit ? $"Never over {Figure.Of(limit.KilometersPerHour)} km/h here." : "Never over the local limit.",
        "Afterwards drive on without braking until it has cooled. No standing still on the pedal, no parking brake while it is hot.",
        .. facts.Regenerates
            ? ["It brakes with its motor first: use the maker's way to force friction braking, or the stops do not reach these pads."]
            : Array.Empty<string>(),
        .. facts.HatShoes ? ["Parking shoes: a few gentle rolling applications, only where the maker allows it."] : Array.Empty<string>(),
        .. facts.FromMaker ? Array.Empty<string>() : ["The pad maker's sheet wins over this series."],
    ];

    private static void Check(BedInFacts facts)
    {
        var s = facts.Series;
        var checks = new Checks().Range("series.stops", s.Stops, 1, 30, "")
            .Range("series.fromKmh", s.From.KilometersPerHour, 10, 130, "km/h")
            .Range("series.toKmh", s.To.KilometersPerHour, 0, 120, "km/h")
            .Range("series.gapS", s.Gap.Seconds, 5, 600, "s").Range("vehicleKg", facts.Vehicle.Kilograms, 300, 12_000, "kg")
            .Range("rotorKg", facts.Rotor.Kilograms, 1, 40, "kg")
            .Range("ambientCelsius", facts.AmbientCelsius, -30, 50, "°C").Range("rearPercent", facts.RearPercent, 5, 80, "%")
            .Range("coolingTimeS", facts.CoolingTime?.Seconds, 30, 3_600, "s")
            .Range("localLimitKmh", facts.LocalLimit?.KilometersPerHour, 10, 130, "km/h");
        if (checks.Ok && s.To >= s.From)
            checks.Add("series.toKmh", Figure.Of(s.To.KilometersPerHour), $"under {Figure.Of(s.From.KilometersPerHour)} km/h",
                "A stop ends slower than it begins: series.toKmh must be under series.fromKmh.");
        if (checks.Ok && facts.LocalLimit is { } limit && s.From > limit)
            checks.Add("series.fromKmh", Figure.Of(s.From.KilometersPerHour), $"10 to {Figure.Of(limit.KilometersPerHour)} km/h",
                $"{Figure.Of(s.From.KilometersPerHour)} km/h is over the local limit of {Figure.Of(limit.KilometersPerHour)} km/h: never for a bed-in.");
        checks.ThrowIfAny();
    }
}
