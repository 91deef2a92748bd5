using PatientPawl.Core.Measuring;
using UnitsNet;

namespace PatientPawl.Core.Tests.Measuring;

/// <summary>What can be measured where, with what, and when a point is read more than once.</summary>
public class MeasurandTests
{
    private static Instrument Tool(string id) => InstrumentCatalogue.Find(id)!;
    private static PointReading Good() => new(Guid.NewGuid(), Measurand.DrumDiameter, "open-edge", Angle.FromDegrees(45), Length.FromMillimeters(190), Tool("drum-gauge"), null, default);

    [Fact]
    public void Every_measurand_has_a_card_a_place_and_an_instrument_that_gets_at_it()
    {
        foreach (var measurand in Enum.GetValues<Measurand>())
        {
            var card = measurand.Card();
            card.Places.ShouldNotBeEmpty();
            card.Places.Distinct().Count().ShouldBe(card.Places.Count);
            card.Low.ShouldBeLessThan(card.High);
            InstrumentCatalogue.Defaults.ShouldContain(i => i.Serves(card.Use), measurand.ToString());
            foreach (var place in card.Places)
                ReadingRules.Check([new(Guid.NewGuid(), measurand, place, card.HasDirection ? Angle.Zero : null, card.High, InstrumentCatalogue.Defaults.First(i => i.Serves(card.Use)), null, default)], Jobs.Bench.Board.Today);
        }
    }

    [Fact]
    public void Every_impossible_part_of_a_reading_is_named_and_all_at_once()
    {
        void Refused(PointReading reading, params string[] fields) => Should.Throw<InputException>(() => ReadingRules.Check([reading], Jobs.Bench.Board.Today)).Errors.Select(e => e.Field).ShouldBe(fields);
        ReadingRules.Check([Good()], Jobs.Bench.Board.Today);
        Refused(Good() with { Place = "lid" }, "place");
        Refused(Good() with { Direction = null }, "directionDeg");
        Refused(Good() with { Direction = Angle.FromDegrees(721) }, "directionDeg");
        Refused(Good() with { Value = Length.FromMillimeters(-1) }, "valueMm");
        Refused(Good() with { Value = Length.FromMillimeters(1e9) }, "valueMm");
        Refused(Good() with { Celsius = 151 }, "celsius");
        Refused(Good() with { Instrument = Tool("micrometer") }, "instrumentId");
        Refused(Good() with { Measurand = (Measurand)99 }, "measurand");
        Refused(Good() with { Place = "lid", Value = Length.Zero, Celsius = -99, Instrument = Tool("dial") }, "place", "celsius", "valueMm", "instrumentId");
        Should.Throw<InputException>(() => ReadingRules.Check([.. Enumerable.Repeat(Good(), 501)], Jobs.Bench.Board.Today)).Errors.ShouldContain(e => e.Field == "readings");
    }

    [Fact]
    public void An_instrument_is_in_date_to_the_end_of_its_last_day()
    {
        var day = new DateOnly(2026, 11, 25);
        var tool = Tool("caliper") with { CalibratedUntil = day };
        tool.InDate(day).ShouldBeTrue();
        tool.InDate(day.AddDays(1)).ShouldBeFalse();
        Tool("caliper").InDate(day.AddYears(50)).ShouldBeTrue("none is kept");
    }

    [Theory]
    [InlineData("", 0.01, 0.03, "id")]
    [InlineData("my tool", 0.01, 0.03, "id")]
    [InlineData("tool", 0, 0.03, "resolutionMm")]
    [InlineData("tool", 6, 0.03, "resolutionMm")]
    [InlineData("tool", 0.01, -0.1, "permissibleErrorMm")]
    [InlineData("tool", 0.01, 5.5, "permissibleErrorMm")]
    public void An_instrument_that_cannot_be_is_refused(string id, double resolution, double error, string field) =>
        Should.Throw<InputException>(() => new Instrument(id, "Tool", Length.FromMillimeters(resolution), Length.FromMillimeters(error), false).Checked()).Errors.ShouldContain(e => e.Field == field);

    [Fact]
    public void Every_default_instrument_is_flagged_sound_and_has_some_doubt()
    {
        InstrumentCatalogue.Defaults.ShouldAllBe(i => i.IsDefault && i.StandardUncertainty() > Length.Zero);
        foreach (var i in InstrumentCatalogue.Defaults) i.Checked();
        // JCGM 100:2008, 4.3.7: a rectangular limit a has the standard uncertainty a over root 3.
        var micrometer = Tool("micrometer");
        micrometer.StandardUncertainty().Millimeters.ShouldBe(Math.Sqrt((0.005 * 0.005 + 0.004 * 0.004) / 3), 1e-12);
        Should.Throw<InputException>(() => (micrometer with { Uses = [] }).Checked()).Errors.Single().Field.ShouldBe("uses");
    }
}
