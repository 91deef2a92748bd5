using System.Globalization;
using System.Text;
using PatientPawl.Core;
using PatientPawl.Core.Electric;
using PatientPawl.Data;
using PatientPawl.Web.Hosting;
using UnitsNet;

namespace PatientPawl.Web.Electric;

/// <summary>
/// A current trace as CSV (RFC 4180): <c>time_s,current_a</c>. Other headings are understood where they name a time in s or ms and a current in A
/// or mA, in either order; a decimal comma is understood where the comma does not part the columns.
/// </summary>
internal static class TraceCsv
{
    // A minute at 10 000 points a second, and what that takes in letters.
    private const int MostPoints = 600_000, MostCharacters = 8 * 1024 * 1024;

    public static byte[] Write(CurrentTrace trace)
    {
        var text = new StringBuilder(Picture.TraceHeader).Append('\n');
        foreach (var p in trace.Points)
            text.Append(CultureInfo.InvariantCulture, $"{p.At.Seconds:0.######},{p.Current.Amperes:0.####}\n");
        return Encoding.ASCII.GetBytes(text.ToString());
    }

    /// <summary>Reads one.</summary>
    /// <exception cref="InputException">The line, the field, the value and what is wanted.</exception>
    public static CurrentTrace Read(string text)
    {
        var (csv, separator, first) = Csv.Open(text, MostCharacters);
        using var _ = csv;
        var (time, current) = Columns(first, separator);
        List<TracePoint> points = [];
        // The first line names the columns.
        csv.Read();
        while (csv.Read())
        {
            if (points.Count == MostPoints) throw new InputException(new InputError("text", "more", $"at most {MostPoints} points", $"A trace has at most {MostPoints} points."));
            double At(Column c)
            {
                var cell = c.Index < csv.FieldCount ? csv.GetString(c.Index) : null;
                if (cell is not null && Csv.Number(cell, separator) is { } value) return value * c.Factor;
                var says = $"Line {csv.LineNumber}: {c.Name} is {Figure.Shorten(cell)}, which is no number.";
                throw new InputException(new InputError(c.Name, Figure.Shorten(cell), "a number", says));
            }

            points.Add(new(Duration.FromSeconds(At(time)), ElectricCurrent.FromAmperes(At(current))));
        }

        return CurrentTrace.From(points);
    }

    private static (Column Time, Column Current) Columns(string first, char separator)
    {
        Column? time = null, current = null;
        var cells = first.Split(separator);
        for (var i = 0; i < cells.Length; i++)
        {
            var letters = cells[i].ToLowerInvariant().Select(c => char.IsLetterOrDigit(c) ? c : ' ');
            var words = string.Concat(letters).Split(' ', StringSplitOptions.RemoveEmptyEntries);
            var unit = words.Length > 1 ? words[^1] : "";
            switch (words.FirstOrDefault())
            {
                case "time" or "t":
                    time ??= Of("time_s", i, unit switch { "" or "s" or "sec" or "seconds" => 1, "ms" => 1e-3, _ => null });
                    break;
                case "current" or "i" or "amps":
                    current ??= Of("current_a", i, unit switch { "" or "a" or "amps" or "ampere" => 1, "ma" => 1e-3, _ => null });
                    break;
                default:
                    break;
            }
        }

        const string Wanted = "The first line names the columns: time_s (or time_ms) and current_a (or current_ma).";
        return time is null || current is null ? throw new InputException(new InputError("text", Figure.Shorten(first), Picture.TraceHeader, Wanted)) : (time, current);
    }

    private static Column? Of(string name, int index, double? factor) => factor is { } f ? new(name, index, f) : null;

    private sealed record Column(string Name, int Index, double Factor);
}
