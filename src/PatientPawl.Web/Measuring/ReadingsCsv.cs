using System.Globalization;
using PatientPawl.Core;
using PatientPawl.Core.Measuring;
using UnitsNet;
using PatientPawl.Web.Hosting;

namespace PatientPawl.Web.Measuring;

/// <summary>What became of one line of a CSV.</summary>
/// <param name="Line">Its number, from 1, the heading included.</param>
/// <param name="Taken">True when it was understood.</param>
/// <param name="Says">What was understood, or what is wrong.</param>
public sealed record CsvLine(int Line, bool Taken, string Says);

/// <summary>A CSV as it was understood.</summary>
public sealed record CsvRead(IReadOnlyList<ReadingIn> Readings, IReadOnlyList<CsvLine> Lines);

/// <summary>
/// Readings as CSV (RFC 4180), one a line: <c>measurand,place,direction_deg,value_mm,instrument,celsius,at</c>. A comma, semicolon or tab parts the columns; a
/// decimal comma is understood where the comma does not.
/// </summary>
internal static class ReadingsCsv
{
    private static readonly string[] Columns = ["measurand", "place", "direction_deg", "value_mm", "instrument", "celsius", "at"];

    public static string Write(IEnumerable<PointReading> readings) => Csv.Write(Columns, readings.Select(r => (string[])
    [
        Csv.Word(r.Measurand), r.Place, r.Direction is { } d ? Figure.Of(d.Degrees, 6) : "", Figure.Of(r.Value.Millimeters, 6),
        Csv.Harmless(r.Instrument.Id), r.Celsius is { } t ? Figure.Of(t) : "", Csv.Time(r.At),
    ]));

    /// <summary>Reads what it can and says of every other line what is wrong with it.</summary>
    public static CsvRead Read(string text, ToolBoard board, DateTimeOffset now)
    {
        var (csv, separator, first) = Csv.Open(text, 200_000);
        using var _ = csv;
        List<ReadingIn> readings = [];
        List<CsvLine> lines = [];
        string[]? heading = null;
        while (lines.Count <= 500 && csv.Read())
        {
            string[] fields = [.. Enumerable.Range(0, csv.FieldCount).Select(csv.GetString)];
            var line = (int)csv.LineNumber;
            if (heading is null)
            {
                heading = [.. fields.Select(f => f.ToLowerInvariant())];
                if (!heading.Contains("measurand") || !heading.Contains("value_mm"))
                    throw new InputException(new InputError("text", Figure.Shorten(first), string.Join(",", Columns), $"The first line names the columns, at least measurand and value_mm: {string.Join(",", Columns)}."));
                continue;
            }

            string? Field(string name) => Array.IndexOf(heading, name) is >= 0 and var i && i < fields.Length && fields[i].Length > 0 ? fields[i] : null;
            try
            {
                var reading = Line(Field, separator, board, now);
                readings.Add(reading);
                lines.Add(new(line, true, $"{reading.Measurand.Card().Name} {Figure.Of(reading.Value.Millimeters)} mm"));
            }
            catch (InputException e)
            {
                lines.Add(new(line, false, e.Message));
            }
        }

        return new(readings, lines);
    }

    private static ReadingIn Line(Func<string, string?> field, char separator, ToolBoard board, DateTimeOffset now)
    {
        var word = field("measurand") ?? "";
        var card = MeasurandCatalogue.All.FirstOrDefault(c => string.Equals(Csv.Word(c.Measurand), word, StringComparison.OrdinalIgnoreCase))
            ?? throw Wrong("measurand", word, string.Join(", ", MeasurandCatalogue.All.Select(c => Csv.Word(c.Measurand))), $"\"{Figure.Shorten(word)}\" is not something measured here.");
        double? Number(string name)
        {
            if (field(name) is not { } text) return null;
            return Csv.Number(text, separator) ?? throw Wrong(name, text, "a plain figure", $"{name} \"{Figure.Shorten(text)}\" is not a plain figure.");
        }

        var value = Number("value_mm") ?? throw Wrong("value_mm", "nothing", "a plain figure", "value_mm is missing.");
        var place = field("place") ?? (card.Places.Count == 1 ? card.Places[0] : "");
        // Without a word the first instrument that gets at it is taken, and can be changed on the bench.
        var instrument = field("instrument") is { } id ? InstrumentCatalogue.Get(board.Instruments, id) : board.OnHand.FirstOrDefault(i => i.Serves(card.Use)) ?? board.Instruments[0];
        var at = field("at") is { } when && DateTimeOffset.TryParse(when, CultureInfo.InvariantCulture, DateTimeStyles.AssumeUniversal, out var t) ? t : now;
        var reading = new ReadingIn(Guid.NewGuid(), card.Measurand, place, Number("direction_deg") is { } d ? Angle.FromDegrees(d) : null, Length.FromMillimeters(value), instrument.Id, Number("celsius"), at);
        ReadingRules.Check([new(reading.Id, reading.Measurand, reading.Place, reading.Direction, reading.Value, instrument, reading.Celsius, reading.At)], board.Today);
        return reading;
    }

    private static InputException Wrong(string field, string value, string allowed, string says) => new(new InputError(field, Figure.Shorten(value), allowed, says));
}
