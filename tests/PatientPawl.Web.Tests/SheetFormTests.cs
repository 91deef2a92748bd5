using System.Text.Json.Nodes;
using System.Text.Json;
using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Practice;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core;
using PatientPawl.Data;
using PatientPawl.Web.Vehicles;
using UnitsNet;

namespace PatientPawl.Web.Tests;

public class SheetFormTests
{
    // What a job adds to a line, and what the form asks in a way of its own.
    private static readonly string[] NotAsked = ["torques.typed", "torques.wantedNm", "torques.order", "torques.thread", "torques.renewedEveryTime", "electric.inCar", "electric.inCarClose", "fittings"];

    private static readonly SheetForm Form = SheetForm.Whole;
    private static readonly IReadOnlyList<SheetFormField> Fields = [.. Form.Groups.SelectMany(g => g.Fields), .. Form.Fastener.Select(f => f with { Key = "torques." + f.Key })];

    // With something in every part, and one fastener.
    private static JsonObject Whole()
    {
        var sheet = InventedCars.Sheets.First(s => s.Torques.Count > 0);
        return JsonSerializer.SerializeToNode(sheet with
        {
            Torques = [sheet.Torques[0]],
            Drum = new(null, null, null, null, null, null, null, null, null, null, null, null, false),
            Hydraulics = new HydraulicSpec(FluidGrade.Dot4, null, null, null, null),
            Electric = new ElectricSpec(false, null, ""),
            PadSet = new PadSetSpec(null),
        }, PawlJson.Options)!.AsObject();
    }

    private static JsonObject Holder(JsonObject sheet, string key) => key.Split('.') switch
    {
        ["torques", _] => sheet["torques"]![0]!.AsObject(),
        [var part, _] => sheet[part]!.AsObject(),
        _ => sheet,
    };

    // Null when the sheet is taken; otherwise the fields that are refused.
    private static IReadOnlyList<string>? Refused(JsonObject sheet)
    {
        try
        {
            sheet.Deserialize<SpecSheet>(PawlJson.Options)!.Checked();
            return null;
        }
        catch (InputException e)
        {
            return [.. e.Errors.Where(x => x.Message.Contains("it must be", StringComparison.Ordinal)).Select(x => x.Field)];
        }
    }

    [Fact]
    public void Every_field_of_the_format_is_asked_and_nothing_that_it_has_not()
    {
        var sheet = Whole();
        var format = sheet.SelectMany(p => p.Value switch
        {
            JsonObject part => part.Select(q => $"{p.Key}.{q.Key}"),
            JsonArray lines when p.Key == "torques" => lines[0]!.AsObject().Select(q => $"torques.{q.Key}"),
            _ => [p.Key],
        });
        Fields.Select(f => f.Key).ShouldBe(format.Except(NotAsked), ignoreOrder: true);
    }

    [Fact]
    public void A_figure_is_taken_at_both_ends_of_its_range_and_refused_by_its_field_just_outside()
    {
        foreach (var field in Fields.Where(f => f.Kind == SheetFieldKind.Figure))
        {
            var (least, most) = (field.Least.ShouldNotBeNull(), field.Most.ShouldNotBeNull());
            IReadOnlyList<string>? With(double figure)
            {
                var sheet = Whole();
                var isWhole = Math.Abs(figure % 1) < 1e-12;
                Holder(sheet, field.Key)[field.Key.Split('.')[^1]] = isWhole ? (JsonNode)(int)figure : figure;
                return Refused(sheet);
            }

            var name = field.Key.Replace("torques.", "torques.SlidePin.", StringComparison.Ordinal);
            (With(least) ?? []).ShouldNotContain(name, $"{least}");
            (With(most) ?? []).ShouldNotContain(name, $"{most}");
            With(most + 1).ShouldNotBeNull(field.Key).ShouldContain(name);
            With(least - 1).ShouldNotBeNull(field.Key).ShouldContain(name);
        }
    }

    [Fact]
    public void Every_answer_can_be_given_and_is_called_something_of_its_own()
    {
        foreach (var field in Fields.Where(f => f.Kind == SheetFieldKind.Choice))
        {
            field.Answers.Select(a => a.Says).ShouldBeUnique(field.Key);
            foreach (var answer in field.Answers)
            {
                var sheet = Whole();
                Holder(sheet, field.Key)[field.Key.Split('.')[^1]] = answer.Key;
                (Refused(sheet) ?? []).ShouldBeEmpty($"{field.Key} {answer.Key}");
            }
        }
    }
}
