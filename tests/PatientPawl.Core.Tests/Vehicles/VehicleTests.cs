using PatientPawl.Core.Torque;
using PatientPawl.Core.Vehicles;
using UnitsNet;

namespace PatientPawl.Core.Tests.Vehicles;

public class VehicleTests
{
    [Theory]
    // 49 CFR 565.15, from memory: seventeen ones carry check digit 1. The second is the regulation's arithmetic redone by hand:
    // values 1 1 1 1 1 1 1 1 0 1 1 1 1 1 1 1 2 with the weights give 91 = 8 x 11 + 3.
    [InlineData("11111111111111111", '1', true)]
    [InlineData("11111111311111112", '3', true)]
    [InlineData("11111111X11111111", '1', false)]
    public void Check_digit(string vin, char expected, bool matches)
    {
        var check = Vin.Check(vin);
        check.Expected.ShouldBe(expected);
        check.Matches.ShouldBe(matches);
    }

    [Fact]
    public void Every_letter_has_the_regulations_value()
    {
        // 49 CFR 565.15, from memory. Position 8 weighs 10 = -1 modulo 11; the other sixteen weights sum to 89 - 10 = 79.
        var table = new Dictionary<char, int>
        {
            ['A'] = 1,
            ['B'] = 2,
            ['C'] = 3,
            ['D'] = 4,
            ['E'] = 5,
            ['F'] = 6,
            ['G'] = 7,
            ['H'] = 8,
            ['J'] = 1,
            ['K'] = 2,
            ['L'] = 3,
            ['M'] = 4,
            ['N'] = 5,
            ['P'] = 7,
            ['R'] = 9,
            ['S'] = 2,
            ['T'] = 3,
            ['U'] = 4,
            ['V'] = 5,
            ['W'] = 6,
            ['X'] = 7,
            ['Y'] = 8,
            ['Z'] = 9,
        };
        foreach (var (letter, value) in table)
        {
            var sum = (79 + 10 * value) % 11;
            Vin.Check("1111111" + letter + "011111111").Expected.ShouldBe(sum == 10 ? 'X' : (char)('0' + sum), letter.ToString());
        }
    }

    [Theory]
    [InlineData("1111111111111111")]
    [InlineData("I1111111111111111")]
    [InlineData("11111O11111111111")]
    [InlineData("1111111111111111Q")]
    [InlineData("")]
    [InlineData(null)]
    public void Impossible_vins_are_refused(string? vin) => Should.Throw<InputException>(() => Vin.Check(vin!)).Errors[0].Field.ShouldBe("vin");

    [Fact]
    public void A_sheet_names_every_impossible_figure_at_once()
    {
        static Length Mm(double v) => Length.FromMillimeters(v);
        var sheet = new SpecSheet("X", "X", "X", null, new(Mm(5), 0, Mm(0.8), Mm(1), null, null, false, 0), new(Mm(15), Mm(15), Mm(5), null), new(Mm(10), Mm(10), false, false),
            new(Volume.FromMilliliters(5), Volume.FromMilliliters(10)), null,
            [new(FastenerRole.Wheel, 5, Mm(14), Mm(1.5), PropertyClass.NotKnown, "hex", UnitsNet.Torque.FromNewtonMeters(120), UnitsNet.Torque.FromNewtonMeters(100), false, true, false, null)]);
        var fields = Should.Throw<InputException>(sheet.Checked).Errors.Select(e => e.Field).ToArray();
        fields.ShouldBe(["piston.diameterMm", "piston.pistonsPerCaliper", "reservoir.bandMl", "rotor.minimumThicknessMm", "torques.Wheel.highNm"], ignoreOrder: true);
    }

    [Theory]
    [InlineData(1.0, "1")]
    [InlineData(0.1 + 0.2, "0.3")]
    [InlineData(-0.00001, "0")]
    [InlineData(12345.678, "12345.678")]
    public void Figures_are_written_as_the_trade_writes_them(double value, string text) => Figure.Of(value).ShouldBe(text);
}
