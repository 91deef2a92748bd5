using System.Globalization;
using System.Text.RegularExpressions;
using PatientPawl.Core.Reasoning;
using UnitsNet;

namespace PatientPawl.Core.Measuring;

/// <summary>A stamping as it was understood.</summary>
/// <param name="Typed">What was typed.</param>
/// <param name="Limit">What it means.</param>
/// <param name="Understood">In words, to be checked against the part.</param>
/// <param name="Reasons">Why.</param>
public sealed record StampRead(string Typed, Length Limit, string Understood, Reasons Reasons) : IReasoned;

/// <summary>Reads one figure with its unit from a stamping.</summary>
internal static partial class Stamp
{
    /// <param name="engine">The engine that asks.</param>
    /// <param name="typed">What was typed.</param>
    /// <param name="low">Least mm the part can have.</param>
    /// <param name="high">Most mm.</param>
    /// <param name="inchBelow">Without a unit, figures below this are inches.</param>
    /// <param name="part">What no part is, for the refusal.</param>
    /// <param name="example">A stamping as it looks.</param>
    public static StampRead Read(string engine, string? typed, double low, double high, double inchBelow, string part, string example)
    {
        var text = (typed ?? "").Trim();
        // So short that no pattern takes long; the patterns' own clock is generous, so that a busy machine does not run it out.
        if (text.Length > 60) throw Refuse(typed, "It is longer than any stamping: type the limit alone.");
        var figures = Number().Matches(text);
        if (figures.Count != 1)
            throw Refuse(typed, figures.Count > 1 ? "There is more than one figure in it: type the limit alone." : $"There is no figure in it, such as {example}.");
        if (figures[0].Index > 0 && text[figures[0].Index - 1] == '-') throw Refuse(typed, "A limit is not negative.");
        var value = double.Parse(figures[0].Value.Replace(',', '.'), CultureInfo.InvariantCulture);
        var inch = Inch().IsMatch(text);
        var mm = Millimetre().IsMatch(text);
        if (inch && mm) throw Refuse(typed, "It carries both mm and inch: which is it?");
        var assumed = !inch && !mm;
        if (assumed) inch = value < inchBelow && value * 25.4 >= low;
        var limit = inch ? Length.FromInches(value) : Length.FromMillimeters(value);
        if (limit.Millimeters < low || limit.Millimeters > high)
            throw Refuse(typed, $"{Figure.Of(value)} {(inch ? "inch" : "mm")} is no {part}: {Figure.Of(low)} to {Figure.Of(high)} mm, or {Figure.Of(low / 25.4, 2)} to {Figure.Of(high / 25.4, 2)} inch.");
        var understood = inch ? $"{Figure.Of(value)} inch, {Figure.Of(limit.Millimeters, 2)} mm" : $"{Figure.Of(value)} mm";
        if (assumed) understood += inch ? "; no unit stamped, taken as inch" : "; no unit stamped, taken as mm";
        return new(text, limit, understood, new Trail(engine).Input("Stamped", text)
            .Formula("In mm", inch ? "inch × 25.4" : "as stamped", inch ? $"{Figure.Of(value)} × 25.4" : Figure.Of(value), $"{Figure.Of(limit.Millimeters, 3)} mm", "geometry").Conclude(understood + ".").Done());
    }

    private static InputException Refuse(string? typed, string says) => new(new InputError("stamp", Figure.Shorten(typed), "one figure with mm or inch", says));

    // A full stop that ends an abbreviation, as in TH.22, is no decimal point.
    [GeneratedRegex(@"\d+(?:[.,]\d+)?|(?<![A-Za-z])[.,]\d+", RegexOptions.None, 5000)]
    private static partial Regex Number();

    [GeneratedRegex(@"\b(?:in|inch|inches)\b|""|(?<=\d)in\b", RegexOptions.IgnoreCase, 5000)]
    private static partial Regex Inch();

    [GeneratedRegex(@"mm\b|millimet", RegexOptions.IgnoreCase, 5000)]
    private static partial Regex Millimetre();
}
