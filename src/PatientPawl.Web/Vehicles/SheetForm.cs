using System.Text.Json;
using PatientPawl.Core.Vehicles;
using PatientPawl.Data;

namespace PatientPawl.Web.Vehicles;

/// <summary>One answer, by its name in the open formats.</summary>
public sealed record SheetAnswer(string Key, string Says);

/// <summary>A field of the form; its answers, where it takes one of several.</summary>
public sealed record SheetFormField(
    string Key, string Says, SheetFieldKind Kind, string Unit, bool UnitIsChosen, double? Least, double? Most, bool MayBeMissing, IReadOnlyList<SheetAnswer> Answers);

/// <summary>Fields that stand together.</summary>
public sealed record SheetFormGroup(string Says, bool MayBeMissing, IReadOnlyList<SheetFormField> Fields);

/// <summary>What a spec sheet is made of: for a form, or for a program that writes sheets.</summary>
public sealed record SheetForm(IReadOnlyList<SheetFormGroup> Groups, IReadOnlyList<SheetFormField> Fastener, IReadOnlyList<SheetAnswer> SmallParts)
{
    /// <summary>Everything.</summary>
    public static SheetForm Whole { get; } = new(
        [.. SheetFields.Groups.Select(g => new SheetFormGroup(g.Says, g.MayBeMissing, [.. g.Fields.Select(Of)]))],
        [.. SheetFields.Fastener.Select(Of)],
        Named(SheetFields.SmallParts));

    private static SheetFormField Of(SheetField f) => new(f.Key, f.Says, f.Kind, f.Unit, f.UnitIsChosen, f.Least, f.Most, f.MayBeMissing, Named(f.Choices));

    private static IReadOnlyList<SheetAnswer> Named(IReadOnlyList<SheetChoice> choices) =>
        [.. choices.Select(c => new SheetAnswer(JsonSerializer.SerializeToElement(c.Value, c.Value.GetType(), PawlJson.Options).GetString()!, c.Says))];
}
