using System.Globalization;
using UnitsNet;

namespace PatientPawl.Core;

/// <summary>What was wrong with one figure or word that came in, said so that it can stand beside its field.</summary>
/// <param name="Field">The field's name in the open formats, unit included (<c>thicknessMm</c>).</param>
/// <param name="Value">What was given, as given.</param>
/// <param name="Allowed">The range or the words that are allowed.</param>
/// <param name="Message">One plain sentence for the technician.</param>
public sealed record InputError(string Field, string Value, string Allowed, string Message);

/// <summary>Input that no engine may compute with. Carries every error found, not the first only.</summary>
public sealed class InputException : Exception
{
    /// <summary>Makes the exception from one or more errors.</summary>
    public InputException(IReadOnlyList<InputError> errors)
        : base(string.Join(" ", errors.Select(e => e.Message))) => Errors = errors;

    /// <summary>Makes the exception from a single error.</summary>
    public InputException(InputError error) : this([error]) { }

    /// <summary>The errors, in the order the fields were checked.</summary>
    public IReadOnlyList<InputError> Errors { get; }
}

/// <summary>Collects input errors so that a person is told all of them at once.</summary>
public sealed class Checks
{
    private readonly List<InputError> _errors = [];

    /// <summary>True when nothing was wrong so far.</summary>
    public bool Ok => _errors.Count == 0;

    /// <summary>Adds an error.</summary>
    public Checks Add(string field, string value, string allowed, string message)
    {
        _errors.Add(new(field, value, allowed, message));
        return this;
    }

    /// <summary>Refuses a number that is not finite or lies outside [<paramref name="low"/>, <paramref name="high"/>]. Null passes.</summary>
    public Checks Range(string field, double? value, double low, double high, string unit)
    {
        if (value is not { } v) return this;
        if (double.IsFinite(v) && v >= low && v <= high) return this;
        var allowed = $"{Figure.Of(low)} to {Figure.Of(high)} {unit}".TrimEnd();
        return Add(field, Figure.Of(v), allowed, $"{$"{field} is {Figure.Of(v)} {unit}".TrimEnd()}: it must be {allowed}.");
    }

    /// <summary>A length in mm within the range.</summary>
    public Checks Millimetres(string field, Length? value, double low, double high)
    {
        var before = _errors.Count;
        Range(field, value?.Millimeters, low, high, "mm");
        // The commonest slip: a figure in inches in a field in mm. It is asked, never assumed.
        if (_errors.Count > before && value!.Value.Millimeters * 25.4 is var mm && mm >= low && mm <= high)
            _errors[^1] = _errors[^1] with { Message = $"{_errors[^1].Message} If it is in inches, it is {Figure.Of(mm, 2)} mm." };
        return this;
    }

    /// <summary>Text that must have from 1 to <paramref name="most"/> characters once trimmed.</summary>
    public Checks Text(string field, string? value, int most)
    {
        var length = value?.Trim().Length ?? 0;
        if (length >= 1 && length <= most && !value!.Any(char.IsControl)) return this;
        return Add(field, Figure.Shorten(value), $"1 to {most} characters", $"{field} needs 1 to {most} plain characters.");
    }

    /// <summary>Throws when anything was wrong.</summary>
    /// <exception cref="InputException">With every error collected.</exception>
    public void ThrowIfAny()
    {
        if (_errors.Count > 0) throw new InputException(_errors);
    }
}

/// <summary>A sentence's beginning, put on words or taken off them.</summary>
internal static class Phrase
{
    // More reasons than these are more than one reads.
    private const int MostReasons = 3;

    /// <summary>The first reasons, and how many more there are.</summary>
    public static string Some(IReadOnlyList<string> reasons) => string.Join(" ", reasons.Take(MostReasons))
        + (reasons.Count > MostReasons ? $" And {reasons.Count - MostReasons} more." : "");

    /// <summary>With a capital first.</summary>
    public static string Capital(string words) => char.ToUpperInvariant(words[0]) + words[1..];

    /// <summary>With a small letter first.</summary>
    public static string Small(string words) => char.ToLowerInvariant(words[0]) + words[1..];
}

/// <summary>Figures as the trade writes them: a point, no thousands mark, no needless zeros.</summary>
public static class Figure
{
    /// <summary>Up to <paramref name="decimals"/> decimals, trailing zeros dropped.</summary>
    public static string Of(double value, int decimals = 3) =>
        Math.Abs(value) >= 1e15 || !double.IsFinite(value)
            ? value.ToString("G4", CultureInfo.InvariantCulture)
            : (Math.Round(value, decimals, MidpointRounding.AwayFromZero) + 0.0).ToString("0." + new string('#', decimals), CultureInfo.InvariantCulture);

    /// <summary>Exactly <paramref name="decimals"/> decimals.</summary>
    public static string Fixed(double value, int decimals) =>
        Math.Round(value, decimals, MidpointRounding.AwayFromZero).ToString("F" + decimals.ToString(CultureInfo.InvariantCulture), CultureInfo.InvariantCulture);

    /// <summary>A day as ISO 8601 writes it: <c>2031-04-09</c>.</summary>
    public static string Date(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    /// <summary>A count with its noun, agreeing in number: <c>1 stroke</c>, <c>2 strokes</c>. The plural adds an s unless it is given.</summary>
    public static string Count(double n, string one, string? many = null, int decimals = 0) => $"{Of(n, decimals)} {(Math.Abs(n - 1) < 1e-9 ? one : many ?? one + "s")}";

    /// <summary>At most 40 characters of what was typed, so that an error never repeats a flood.</summary>
    public static string Shorten(string? text) =>
        text is null ? "nothing" : text.Length <= 40 ? text : text[..40] + " (cut)";
}
