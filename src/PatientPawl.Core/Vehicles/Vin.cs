using PatientPawl.Core.Reasoning;

namespace PatientPawl.Core.Vehicles;

/// <summary>What the check digit says about a vehicle identification number.</summary>
/// <param name="Vin">The number, upper case.</param>
/// <param name="Expected">The check digit that 49 CFR 565.15 gives, 0 to 9 or X.</param>
/// <param name="Matches">True when position 9 carries it. A mismatch is advisory: many markets do not use the digit.</param>
/// <param name="Reasons">Why.</param>
public sealed record VinCheck(string Vin, char Expected, bool Matches, Reasons Reasons) : IReasoned;

/// <summary>Checks a vehicle identification number.</summary>
[Engine]
public static class Vin
{
    private const string Letters = "ABCDEFGHJKLMNPRSTUVWXYZ";
    private const string Values = "12345678123457923456789";
    private static readonly int[] Weights = [8, 7, 6, 5, 4, 3, 2, 10, 0, 9, 8, 7, 6, 5, 4, 3, 2];

    /// <summary>Computes the check digit by 49 CFR 565.15 (from memory).</summary>
    /// <exception cref="InputException">Not 17 characters, or a character other than 0-9 and A-Z without I, O, Q.</exception>
    public static VinCheck Check(string vin)
    {
        var text = (vin ?? "").Trim().ToUpperInvariant();
        if (text.Length != 17)
            throw new InputException(new InputError("vin", Figure.Shorten(vin), "17 characters", $"A VIN has 17 characters; this one has {text.Length}."));
        var bad = text.FirstOrDefault(c => !char.IsAsciiDigit(c) && !Letters.Contains(c));
        if (bad != default)
            throw new InputException(new InputError("vin", Figure.Shorten(vin), "0-9 and A-Z without I, O, Q", $"A VIN never carries '{(char.IsControl(bad) ? '?' : bad)}'. I, O and Q are left out so that they are not read as 1 and 0."));

        var sum = text.Select((c, i) => Weights[i] * (char.IsAsciiDigit(c) ? c - '0' : Values[Letters.IndexOf(c, StringComparison.Ordinal)] - '0')).Sum();
        var expected = sum % 11 == 10 ? 'X' : (char)('0' + sum % 11);
        var matches = text[8] == expected;
        return new(text, expected, matches, new Trail("Vin.Check")
            .Input("VIN", text)
            .Formula("Check digit", "sum of value × weight, modulo 11", $"{sum} mod 11", expected.ToString(), "cfr-565")
            .Conclude(matches ? "The check digit agrees." : "The check digit does not agree. Many markets do not use it: advisory only.", "cfr-565").Done());
    }
}
