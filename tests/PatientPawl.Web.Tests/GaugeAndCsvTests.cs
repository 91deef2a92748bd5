using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using PatientPawl.Core;
using PatientPawl.Core.Measuring;
using PatientPawl.StandIns;
using UnitsNet;

namespace PatientPawl.Web.Tests;

/// <summary>The stand-in gauge by itself, and readings that go out as CSV and come back.</summary>
public sealed class GaugeAndCsvTests(DemoShop demo) : IClassFixture<DemoShop>
{
    private readonly Workshop _shop = demo.Shop;

    private static StandInGauge Gauge(string id, int seed = 1) => new(InstrumentCatalogue.Find(id)!, seed);
    private static StandInSetting Set(double mm, double noise = 0, GaugeUnit unit = GaugeUnit.Mm) => new(Length.FromMillimeters(mm), Length.FromMillimeters(noise), unit);

    [Theory]
    // A display goes in steps of its resolution; an inch display carries one decimal more.
    [InlineData("caliper", 9.2349, GaugeUnit.Mm, "9.23")]
    [InlineData("fine-micrometer", 9.2349, GaugeUnit.Mm, "9.235")]
    [InlineData("drum-gauge", 190.97, GaugeUnit.Mm, "190.95")]
    [InlineData("pad-gauge", 7.74, GaugeUnit.Mm, "7.5")]
    [InlineData("caliper", 25.4, GaugeUnit.Inch, "1.000")]
    [InlineData("fine-micrometer", 12.7, GaugeUnit.Inch, "0.5000")]
    [InlineData("dial", -0.05, GaugeUnit.Mm, "-0.05")]
    public void A_display_shows_steps_of_its_resolution(string id, double mm, GaugeUnit unit, string digits) =>
        Gauge(id).Press(Set(mm, 0, unit)).Digits.ShouldBe(digits);

    [Fact]
    public void Its_noise_is_as_wide_as_it_says_and_centred_on_the_size()
    {
        var gauge = Gauge("fine-micrometer", 42);
        double[] readings = [.. Enumerable.Range(0, 2000).Select(_ => double.Parse(gauge.Press(Set(10, 0.05)).Digits, System.Globalization.CultureInfo.InvariantCulture))];
        var mean = readings.Average();
        mean.ShouldBe(10, 4 * 0.05 / Math.Sqrt(readings.Length));
        Math.Sqrt(readings.Average(r => (r - mean) * (r - mean))).ShouldBe(0.05, 0.004);
        // About 68 of 100 within one deviation: a normal scatter and not a flat one.
        readings.Count(r => Math.Abs(r - mean) < 0.05).ShouldBeInRange(1290, 1440);
    }

    [Fact]
    public void The_same_seed_presses_alike_and_presses_count_up()
    {
        var (a, b) = (Gauge("caliper", 7), Gauge("caliper", 7));
        for (var i = 1; i <= 20; i++)
        {
            var (x, y) = (a.Press(Set(5, 0.3)), b.Press(Set(5, 0.3)));
            x.ShouldBe(y);
            x.Seq.ShouldBe(i);
        }
    }

    [Theory]
    [InlineData(501, 0, "sizeMm")]
    [InlineData(-6, 0, "sizeMm")]
    [InlineData(10, -0.1, "noiseMm")]
    [InlineData(10, 1.5, "noiseMm")]
    public void What_no_gauge_could_read_is_refused(double mm, double noise, string field) =>
        Should.Throw<InputException>(() => Gauge("caliper").Press(Set(mm, noise))).Errors.ShouldContain(e => e.Field == field);

    [Fact]
    public async Task Every_listener_gets_every_press_until_it_leaves()
    {
        var gauge = Gauge("caliper");
        using var stop = new CancellationTokenSource();
        async Task<List<string>> Listen()
        {
            List<string> heard = [];
            try
            {
                await foreach (var r in gauge.ReadingsAsync(stop.Token))
                {
                    heard.Add(r.Digits);
                    if (r.Digits == "3.00") break;
                }
            }
            catch (OperationCanceledException)
            {
                // It left.
            }

            return heard;
        }

        var (one, two) = (Listen(), Listen());
        foreach (var mm in new[] { 1.0, 2, 3, 4 }) gauge.Press(Set(mm));
        (await one).ShouldBe(["1.00", "2.00", "3.00"]);
        (await two).ShouldBe(["1.00", "2.00", "3.00"]);
        // Nobody listens any more: a press is no error.
        gauge.Press(Set(5)).Seq.ShouldBe(5);
        await stop.CancelAsync();
        (await Listen()).ShouldBeEmpty();
    }

    [Fact]
    public async Task Every_measurand_at_every_place_goes_out_as_csv_and_comes_back_the_same()
    {
        JsonArray readings = [];
        foreach (var card in MeasurandCatalogue.All)
        {
            var tool = InstrumentCatalogue.Defaults.First(i => i.Serves(card.Use)).Id;
            foreach (var (place, i) in card.Places.Select((p, i) => (p, i)))
            {
                var reading = MeasuringTests.Reading(System.Text.Json.JsonNamingPolicy.KebabCaseLower.ConvertName(card.Measurand.ToString()), place, card.HasDirection ? 22.5 * i : null, Math.Round(card.Low.Millimeters + 1.234 + i, 4), tool);
                reading["celsius"] = i == 0 ? 31.5 : null;
                readings.Add(reading);
            }
        }

        var answer = await _shop.Client.PostAsJsonAsync("/api/readings/csv/write", new JsonObject { ["readings"] = readings });
        answer.StatusCode.ShouldBe(HttpStatusCode.OK);
        var csv = await answer.Content.ReadAsStringAsync();
        csv.Split("\r\n")[0].ShouldBe("measurand,place,direction_deg,value_mm,instrument,celsius,at");
        var back = JsonNode.Parse(await (await _shop.Client.PostAsJsonAsync("/api/readings/csv/read", new JsonObject { ["text"] = csv })).Content.ReadAsStringAsync())!;
        back["lines"]!.AsArray().ShouldAllBe(l => (bool)l!["taken"]!);
        back["readings"]!.AsArray().Count.ShouldBe(readings.Count);
        foreach (var (was, now) in readings.Zip(back["readings"]!.AsArray()))
        {
            foreach (var key in new[] { "measurand", "place", "instrumentId" }) now![key]!.ToString().ShouldBe(was![key]!.ToString());
            foreach (var key in new[] { "valueMm", "directionDeg", "celsius" }) ((double?)now![key]).ShouldBe((double?)was![key]);
            DateTimeOffset.Parse(now!["at"]!.ToString(), null).ShouldBe(DateTimeOffset.Parse(was!["at"]!.ToString(), null));
        }
    }

    [Theory]
    [InlineData("measurand\tplace\tvalue_mm\nridge\topen-edge\t0,35", true, "0.35")]
    [InlineData("value_mm;measurand\n0,35;ridge", true, "0.35")]
    [InlineData("MEASURAND,VALUE_MM,PLACE\r\nRidge,\" 0.35 \",open-edge", true, "0.35")]
    [InlineData("measurand,place,value_mm\nridge,open-edge,", false, "value_mm is missing")]
    [InlineData("measurand,place,value_mm\nridge,open-edge,1e9", false, "cannot be")]
    [InlineData("measurand,place,value_mm\nridge,open-edge,NaN", false, "not a plain figure")]
    [InlineData("measurand,place,value_mm\nridge,rim,0.3", false, "not taken at")]
    [InlineData("measurand,place,value_mm,instrument\nridge,open-edge,0.3,yardstick", false, "No such instrument")]
    [InlineData("measurand,place,value_mm,direction_deg\nridge,open-edge,0.3,45", false, "No angle belongs")]
    [InlineData("measurand,place,value_mm\nrotor-thickness,ring,9.1", false, "needs its angle")]
    public async Task Odd_csv_is_understood_or_said_line_by_line(string text, bool taken, string says)
    {
        var read = JsonNode.Parse(await (await _shop.Client.PostAsJsonAsync("/api/readings/csv/read", new JsonObject { ["text"] = text })).Content.ReadAsStringAsync())!;
        var line = read["lines"]!.AsArray().ShouldHaveSingleItem()!;
        ((bool)line["taken"]!).ShouldBe(taken, line.ToJsonString());
        line["says"]!.ToString().ShouldContain(says);
        read["readings"]!.AsArray().Count.ShouldBe(taken ? 1 : 0);
    }

    [Fact]
    public async Task A_jobs_standing_readings_download_and_struck_ones_stay_behind()
    {
        await _shop.SignIn();
        var id = await _shop.NewJob();
        JsonNode good = MeasuringTests.Reading("rotor-thickness", "ring", 0, 9.1, "micrometer"), bad = MeasuringTests.Reading("rotor-thickness", "ring", 90, 7.2, "micrometer");
        (await _shop.Client.PostAsJsonAsync($"/api/jobs/{id}/readings", MeasuringTests.Free(("side", "left"), ("readings", new JsonArray(good, bad))))).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await _shop.Client.PostAsJsonAsync($"/api/jobs/{id}/readings/strike", MeasuringTests.Free(("readingId", bad["id"]!.ToString()), ("reason", "slipped")))).StatusCode.ShouldBe(HttpStatusCode.OK);
        var csv = await _shop.Client.GetStringAsync($"/api/jobs/{id}/readings.csv");
        csv.ShouldContain("rotor-thickness,ring,0,9.1,micrometer");
        csv.ShouldNotContain("7.2");
    }
}
