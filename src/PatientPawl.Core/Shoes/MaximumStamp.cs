using System.Globalization;
using System.Text.RegularExpressions;
using PatientPawl.Core.Reasoning;
using UnitsNet;

namespace PatientPawl.Core.Shoes;

/// <summary>A stamping as it was understood.</summary>
/// <param name="Typed">What was typed.</param>
/// <param name="Diameter">What it means.</param>
/// <param name="Understood">In words, to be checked against the drum.</param>
/// <param name="Reasons">Why.</param>
public sealed record StampRead(string Typed, Length Diameter, string Understood, Reasons Reasons) : IReasoned;

/// <summary>Reads the maximum diameter stamped on a hat.</summary>
[Engine]
public static partial class MaximumStamp
{
    /// <summary>
    /// Reads stampings such as "MAX DIA 191.00 MM", "MAX 7.52 IN", "Ø 191" and decimal commas. Without a unit, 50 to 500 is
    /// millimetres and 2 to 20 is inches, and that is said.
    /// </summary>
    /// <exception cref="InputException">No figure, more than one, or no drum's size.</exception>
    public static StampRead Read(string? typed)
    {
        var text = (typed ?? "").Trim();
        var figures = Number().Matches(text);
        if (text.Length > 60 || figures.Count != 1)
            throw Refuse(typed, figures.Count > 1 ? "There is more than one figure in it: type the maximum alone." : "There is no figure in it, such as MAX DIA 191.00 MM.");
        var value = double.Parse(figures[0].Value.Replace(',', '.'), CultureInfo.InvariantCulture);
        var inch = Inch().IsMatch(text);
        var mm = Millimetre().IsMatch(text);
        if (inch && mm) throw Refuse(typed, "It carries both mm and inch: which is it?");
        var assumed = !inch && !mm;
        if (assumed) inch = value is >= 2 and <= 20;
        var diameter = inch ? Length.FromInches(value) : Length.FromMillimeters(value);
        if (diameter.Millimeters is < 50 or > 500)
            throw Refuse(typed, $"{Figure.Of(value)} {(inch ? "inch" : "mm")} is no drum: 50 to 500 mm, or 2 to 19.6 inch.");
        var understood = inch ? $"{Figure.Of(value)} inch, {Figure.Of(diameter.Millimeters, 2)} mm" : $"{Figure.Of(value)} mm";
        if (assumed) understood += inch ? "; no unit stamped, taken as inch" : "; no unit stamped, taken as mm";
        return new(text, diameter, understood, new Trail("MaximumStamp.Read").Input("Stamped", text)
            .Formula("In mm", inch ? "inch × 25.4" : "as stamped", inch ? $"{Figure.Of(value)} × 25.4" : Figure.Of(value), $"{Figure.Of(diameter.Millimeters, 3)} mm", "geometry").Conclude(understood + ".").Done());
    }

    private static InputException Refuse(string? typed, string says) => new(new InputError("stamp", Figure.Shorten(typed), "one figure with mm or inch", says));

    [GeneratedRegex(@"\d+(?:[.,]\d+)?", RegexOptions.None, 100)]
    private static partial Regex Number();

    [GeneratedRegex(@"\b(?:in|inch|inches)\b|""|(?<=\d)in\b", RegexOptions.IgnoreCase, 100)]
    private static partial Regex Inch();

    [GeneratedRegex(@"mm\b|millimet", RegexOptions.IgnoreCase, 100)]
    private static partial Regex Millimetre();
}
