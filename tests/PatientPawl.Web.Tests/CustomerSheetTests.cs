using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace PatientPawl.Web.Tests;

/// <summary>The sheet for whoever owns the car says what the record says, in plain words.</summary>
public sealed class CustomerSheetTests
{
    private static string[] Lines(JsonNode list) => [.. list.AsArray().Select(l => l!.ToString())];

    [Fact]
    public async Task Its_figures_and_its_advice_are_those_of_the_record()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var board = (await shop.Client.GetFromJsonAsync<JsonNode>("/api/board"))!.AsArray();
        var id = board.First(c => c!["vehicle"]!["plate"]!.ToString() == "GNT 420")!["jobId"]!.ToString();
        var sheet = (await shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}/customer-sheet"))!;
        var record = (await shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}/record"))!;
        ((bool)sheet["handedOver"]!).ShouldBeTrue();
        Lines(sheet["done"]!)
            .ShouldBeSubsetOf([.. Lines(record["fitted"]!), "The car was driven: it stops straight, and the parking brake holds."]);
        Lines(record["fitted"]!).ShouldBeSubsetOf(Lines(sheet["done"]!));
        Lines(sheet["forYou"]!).ShouldBe(Lines(record["advice"]!));
        Lines(sheet["forYou"]!).ShouldContain(l => l.Contains("a soft pedal comes back"));
        foreach (var part in sheet["worn"]!.AsArray())
        {
            var verdict = record["verdicts"]!.AsArray().Single(v => v!["about"]!.ToJsonString() == part!["about"]!.ToJsonString())!;
            ((double)part!["leftMm"]!).ShouldBe((double)verdict["valueMm"]!);
            ((double)part["leastMm"]!).ShouldBe((double)verdict["limitMm"]!);
        }

        sheet["worn"]!.AsArray().Count.ShouldBe(6);
    }

    [Fact]
    public async Task A_job_that_is_not_finished_is_no_sheet_to_hand_out_and_practice_says_what_it_is()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var hand = await Hand.Open(shop, "GNT 233", "pads", EverydayJobsTests.Motor, "scan-tool", purpose: "practice");
        var sheet = (await shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{hand.Id}/customer-sheet"))!;
        ((bool)sheet["handedOver"]!).ShouldBeFalse();
        sheet["purpose"]!.ToString().ShouldBe("practice");
        sheet["done"]!.AsArray().ShouldBeEmpty();
    }
}
