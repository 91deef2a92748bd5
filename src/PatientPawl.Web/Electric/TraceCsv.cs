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
    private const int MostCharacters = 8 * 1024 * 1024, MostPoints = 600_000;

    public static byte[] Write(CurrentTrace trace)
    {
        var text = new StringBuilder(Picture.TraceHeader).Append('\n');
        foreach (var p in trace.Points)
            text.Append(p.At.Seconds.ToString("0.######", CultureInfo.InvariantCulture)).Append(',').Append(p.Current.Amperes.ToString("0.####", CultureInfo.InvariantCulture)).Append('\n');
        return Encoding.ASCII.GetBytes(text.ToString());
    }

    /// <summary>Reads one.</summary>
    /// <exception cref="InputException">The line, the field, the value and what is wanted.</exception>
    public static CurrentTrace Read(string text)
    {
        var (reader, separator, first) = Csv.Open(text, MostCharacters);
        using var csv = reader;
        var (time, current) = Columns(first, separator);
        var decimalComma = separator != ',';
        List<TracePoint> points = [];
        var header = true;
        var line = 0;
        foreach (var row in Rows(csv))
        {
            line++;
            if (header)
            {
                header = false;
                continue;
            }

            if (points.Count >= MostPoints) throw new InputException(new InputError("text", Figure.Of(line), $"at most {MostPoints} points", $"A trace has at most {MostPoints} points."));
            double At(Column c) => row.Length > c.Index && Number(row[c.Index], decimalComma) is { } v ? v * c.Factor
                : throw new InputException(new InputError(c.Name, Figure.Shorten(row.Length > c.Index ? row[c.Index] : null), "a number", $"Line {line}: {c.Name} is {Figure.Shorten(row.Length > c.Index ? row[c.Index] : null)}, which is no number."));
            points.Add(new(Duration.FromSeconds(At(time)), ElectricCurrent.FromAmperes(At(current))));
        }

        return CurrentTrace.From(points);
    }

    private static IEnumerable<string[]> Rows(CsvHelper.CsvReader csv)
    {
        while (csv.Read()) yield return [.. Enumerable.Range(0, csv.FieldCount).Select(csv.GetString)];
    }

    private static double? Number(string cell, bool decimalComma) =>
        double.TryParse(decimalComma ? cell.Replace(',', '.') : cell, NumberStyles.Float, CultureInfo.InvariantCulture, out var v) && double.IsFinite(v) ? v : null;

    private static (Column Time, Column Current) Columns(string first, char separator)
    {
        Column? time = null, current = null;
        var cells = first.Split(separator);
        for (var i = 0; i < cells.Length; i++)
        {
            var word = new string([.. cells[i].Trim().Trim('"').ToLowerInvariant().Select(c => char.IsLetterOrDigit(c) ? c : ' ')]).Split(' ', StringSplitOptions.RemoveEmptyEntries);
            var unit = word.Length > 1 ? word[^1] : "";
            if (word.Length > 0 && word[0] is "time" or "t") time ??= new("time_s", i, unit switch { "" or "s" or "sec" or "seconds" => 1, "ms" => 1e-3, _ => double.NaN });
            if (word.Length > 0 && word[0] is "current" or "i" or "amps") current ??= new("current_a", i, unit switch { "" or "a" or "amps" or "ampere" => 1, "ma" => 1e-3, _ => double.NaN });
        }

        if (time is null || current is null || double.IsNaN(time.Factor) || double.IsNaN(current.Factor))
            throw new InputException(new InputError("text", Figure.Shorten(first), Picture.TraceHeader, "The first line names the columns: time_s (or time_ms) and current_a (or current_ma)."));
        return (time, current);
    }

    private sealed record Column(string Name, int Index, double Factor);
}
