namespace PatientPawl.Core.Measuring;

/// <summary>The workshop's instruments as they hang there on a day.</summary>
/// <param name="Instruments">All of them.</param>
/// <param name="Today">The day, by the workshop's clock.</param>
public sealed record ToolBoard(IReadOnlyList<Instrument> Instruments, DateOnly Today)
{
    /// <summary>Those whose calibration still runs.</summary>
    public IReadOnlyList<Instrument> OnHand => [.. Instruments.Where(i => i.InDate(Today))];

    /// <summary>The instrument of that name, fit to be read with.</summary>
    /// <exception cref="InputException">It is not there, its calibration ran out, or it does not get at what is measured.</exception>
    public Instrument Take(string id, InstrumentUse use, string what)
    {
        var checks = new Checks();
        var instrument = ReadingRules.Instrument(checks, this, id, [use], what);
        checks.ThrowIfAny();
        return instrument!;
    }
}

/// <summary>The one door for readings: the instrument is known, in calibration and gets at it, and the value is one that can be.</summary>
public static class ReadingRules
{
    /// <summary>The instrument of a reading, or null with what is wrong noted.</summary>
    /// <param name="checks">Where it is noted.</param>
    /// <param name="board">The instruments and the day.</param>
    /// <param name="id">Its name on the tool board.</param>
    /// <param name="uses">What it must get at, one of them; empty where that is checked with the value.</param>
    /// <param name="what">What is measured, in words.</param>
    public static Instrument? Instrument(Checks checks, ToolBoard board, string id, IReadOnlyList<InstrumentUse> uses, string what)
    {
        ArgumentNullException.ThrowIfNull(checks);
        ArgumentNullException.ThrowIfNull(board);
        ArgumentNullException.ThrowIfNull(uses);
        if (InstrumentCatalogue.Find(board.Instruments, id) is not { } instrument)
        {
            checks.Add("instrumentId", Figure.Shorten(id), string.Join(", ", board.Instruments.Select(i => i.Id)), "No such instrument in the workshop.");
            return null;
        }

        if (!instrument.InDate(board.Today))
        {
            checks.Add("instrumentId", instrument.Id, "an instrument in calibration",
                $"The calibration of the {Low(instrument)} ran out on {instrument.CalibratedUntil:yyyy-MM-dd}: use another.");
        }

        if (uses.Count > 0 && !uses.Any(instrument.Serves))
            checks.Add("instrumentId", instrument.Id, string.Join(" or ", uses.Select(u => u.ToString().ToLowerInvariant())), $"The {Low(instrument)} does not get at this: {what}.");
        return instrument;
    }

    /// <summary>A reading that a step carries.</summary>
    internal static void Check(Checks checks, Reading reading, ToolBoard board)
    {
        if (!Enum.IsDefined(reading.Kind))
        {
            checks.Add("kind", reading.Kind.ToString(), "a known kind of reading", "That kind of reading is not known.");
            return;
        }

        var card = reading.Kind.Card();
        Value(checks, reading.Kind.ToString(), card.Name, reading.Value, card.Low, card.High, card.Unit);
        if (card.Instrument is null && reading.InstrumentId is null) return;
        if (reading.InstrumentId is { } id) Instrument(checks, board, id, card.Uses, card.Name.ToLowerInvariant());
        else checks.Add("instrumentId", "none", "what it was read with", $"{card.Name}: say what it was measured with.");
    }

    /// <summary>Readings at points, all of them at once.</summary>
    /// <exception cref="InputException">Naming field, value and range.</exception>
    public static void Check(IReadOnlyList<PointReading> readings, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(readings);
        var checks = new Checks();
        if (readings.Count > 500) checks.Add("readings", Figure.Of(readings.Count), "at most 500", "More than 500 readings at once.");
        foreach (var r in readings) Check(checks, r, today);
        checks.ThrowIfAny();
    }

    private static void Check(Checks checks, PointReading r, DateOnly today)
    {
        if (!Enum.IsDefined(r.Measurand))
        {
            checks.Add("measurand", r.Measurand.ToString(), "a known measurand", "What was measured is not known.");
            return;
        }

        var card = r.Measurand.Card();
        if (!card.Places.Contains(r.Place)) checks.Add("place", Figure.Shorten(r.Place), string.Join(", ", card.Places), $"{card.Name} is not taken at \"{Figure.Shorten(r.Place)}\".");
        if (card.HasDirection != r.Direction is not null)
        {
            checks.Add("directionDeg", r.Direction is { } d ? Figure.Of(d.Degrees) : "nothing", card.HasDirection ? "-360 to 720 degrees" : "nothing",
                card.HasDirection ? $"{card.Name} needs its angle." : $"No angle belongs to {card.Name.ToLowerInvariant()}.");
        }

        checks.Range("directionDeg", r.Direction?.Degrees, -360, 720, "degrees").Range("celsius", r.Celsius, -30, 150, "°C");
        Value(checks, "valueMm", card.Name, r.Value.Millimeters, card.Low.Millimeters, card.High.Millimeters, "mm");
        Instrument(checks, new([r.Instrument], today), r.Instrument.Id, [card.Use], card.Name.ToLowerInvariant());
    }

    private static void Value(Checks checks, string field, string name, double value, double low, double high, string unit)
    {
        if (double.IsFinite(value) && value >= low && value <= high) return;
        var range = $"{Figure.Of(low)} to {Figure.Of(high)} {unit}";
        checks.Add(field, Figure.Of(value), range, $"{name}: {Figure.Of(value)} {unit} cannot be. Allowed: {range}.");
    }

    private static string Low(Instrument instrument) => instrument.Name.ToLowerInvariant();
}
