using System.Globalization;
using System.Text.Json;
using CsvHelper;
using PatientPawl.Core;

namespace PatientPawl.Web.Hosting;

/// <summary>CSV as people send it: comma, semicolon or tab parts the columns, empty lines say nothing, a torn quote spoils no other line.</summary>
internal static class Csv
{
    /// <summary>
    /// A text cell that a spreadsheet would take for a formula begins with an apostrophe; <see cref="Plain"/> takes it off again. Numbers stay
    /// numbers. Source: OWASP, CSV injection.
    /// </summary>
    public static string Harmless(string text) => Risky(text) ? "'" + text : text;

    /// <summary>The text as it was before it was made harmless.</summary>
    public static string Plain(string text) => text.StartsWith('\'') && Risky(text) ? text[1..] : text;

    // Behind any apostrophes of its own, so that what was made harmless is told from what was typed so.
    private static bool Risky(string text) => text.AsSpan().TrimStart('\'') is { Length: > 0 } rest && Formula.Contains(rest[0], StringComparison.Ordinal);

    /// <summary>Lines of cells as RFC 4180 has them, the columns' names first.</summary>
    public static string Write(string[] columns, IEnumerable<string[]> rows)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        var options = new CsvWriterOptions { NewLine = "\r\n", FormatProvider = CultureInfo.InvariantCulture };
        using (var csv = CsvWriter.Create(text, options, leaveOpen: true))
        {
            csv.WriteRecord(columns);
            foreach (var row in rows) csv.WriteRecord(row);
        }

        return text.ToString();
    }

    /// <summary>A value of an enumeration as the open formats write it.</summary>
    public static string Word<T>(T value) where T : struct, Enum => JsonNamingPolicy.KebabCaseLower.ConvertName(value.ToString());

    /// <summary>A day and time with its offset, ISO 8601.</summary>
    public static string Time(DateTimeOffset at) => at.ToString("yyyy-MM-ddTHH:mm:sszzz", CultureInfo.InvariantCulture);

    /// <summary>A plain figure; a decimal comma is understood where the comma parts no columns. Null where it is none.</summary>
    public static double? Number(string cell, char separator) =>
        double.TryParse(separator == ',' ? cell : cell.Replace(',', '.'), NumberStyles.Float, CultureInfo.InvariantCulture, out var v) && double.IsFinite(v) ? v : null;

    private const string Formula = "=+-@\t\r";

    /// <summary>Opens a text of at most <paramref name="most"/> characters; the first line tells what parts the columns.</summary>
    /// <exception cref="InputException">Nothing there, or too much.</exception>
    public static (CsvReader Reader, char Separator, string FirstLine) Open(string text, int most)
    {
        if (text.Length == 0 || text.Length > most)
            throw new InputException(new InputError("text", Figure.Of(text.Length), $"1 to {most} characters", $"There is nothing to read, or more than {most} characters."));
        var first = text.Split('\n')[0];
        var separator = first.Contains('\t', StringComparison.Ordinal) ? '\t' : first.Contains(';', StringComparison.Ordinal) ? ';' : ',';
        return (CsvReader.FromText(text, new CsvReaderOptions
        {
            Separator = separator,
            HasHeader = false,
            SkipEmptyLines = true,
            TrimWhitespace = true,
            TrackLineNumbers = true,
            MalformedData = CsvMalformedDataHandling.Recover,
            FieldCountMismatch = CsvFieldCountHandling.Allow,
            MissingField = CsvMissingFieldHandling.ReturnEmpty,
        }), separator, first.Trim());
    }
}
