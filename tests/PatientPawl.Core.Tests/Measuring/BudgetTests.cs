using PatientPawl.Core.Measuring;
using UnitsNet;

namespace PatientPawl.Core.Tests.Measuring;

public class BudgetTests
{
    private static Length Mm(double v) => Length.FromMillimeters(v);
    private static readonly Instrument Micrometer = new("m", "Micrometer", Mm(0.01), Mm(0.004), false);

    [Fact]
    public void Parts_add_in_quadrature()
    {
        // JCGM 100:2008, from memory: root sum of squares.
        var budget = UncertaintyBudget.Of(Micrometer, new(6, Mm(0.03)), new(11e-6, Mm(190), 5));
        budget.Parts.Select(p => p.Name).ShouldBe(["resolution", "permissible error", "repeats", "temperature"]);
        budget.Combined.Millimeters.ShouldBe(Math.Sqrt(budget.Parts.Sum(p => Math.Pow(p.StandardUncertainty.Millimeters, 2))), 1e-12);
        budget.Parts[2].StandardUncertainty.Millimeters.ShouldBe(0.03 / Math.Sqrt(6), 1e-12);
        // 11e-6 x 190 x 5 / root 3 = 0.00603 mm, worked by hand.
        budget.Parts[3].StandardUncertainty.Millimeters.ShouldBe(0.00603, 0.00001);
    }

    [Fact]
    public void Under_six_repeats_the_instruments_own_repeatability_is_the_least()
    {
        UncertaintyBudget.Of(Micrometer, new(3, Mm(0))).Parts[2].StandardUncertainty.Millimeters.ShouldBe(0.01 / Math.Sqrt(3), 1e-12);
        UncertaintyBudget.Of(Micrometer, new(6, Mm(0))).Parts[2].StandardUncertainty.Millimeters.ShouldBe(0);
        UncertaintyBudget.Of(Micrometer, new(1, Mm(0.5))).Parts.Count.ShouldBe(2, "one reading has no spread");
    }

    [Theory]
    [InlineData(1, 0, 0)]
    [InlineData(2, 0.001, 0)]
    [InlineData(4, 0.03, 12)]
    [InlineData(9, 0.002, 3)]
    public void The_figure_alone_is_the_budgets_sum(int count, double spread, double kelvin)
    {
        var temperature = new TemperatureDoubt(11e-6, Mm(190), kelvin);
        UncertaintyBudget.Figure(Micrometer, count, spread, temperature).ShouldBe(UncertaintyBudget.Of(Micrometer, count >= 2 ? new(count, Mm(spread)) : null, temperature).Combined.Millimeters, 1e-15);
    }

    [Fact]
    public void More_repeats_shrink_only_their_own_part()
    {
        var (few, many) = (UncertaintyBudget.Of(Micrometer, new(6, Mm(0.02))), UncertaintyBudget.Of(Micrometer, new(600, Mm(0.02))));
        many.Combined.Millimeters.ShouldBeLessThan(few.Combined.Millimeters);
        many.Fixed.Millimeters.ShouldBe(few.Fixed.Millimeters, 1e-15);
        many.Combined.Millimeters.ShouldBeGreaterThan(many.Fixed.Millimeters);
    }
}
