namespace PatientPawl.Core.Reasoning;

/// <summary>The version of the engines. Stored with every ruling, so that a record prints what was shown at the time.</summary>
public static class EngineVersion
{
    /// <summary>The present version. Raise it when any engine's answer can change for the same input.</summary>
    public const string Current = "10";
}

/// <summary>What a line of reasoning is.</summary>
public enum ReasonKind
{
    /// <summary>A figure or observation that was given.</summary>
    Input,
    /// <summary>A figure the spec sheet did not give.</summary>
    Default,
    /// <summary>A formula with its numbers filled in.</summary>
    Formula,
    /// <summary>An observation and what it felled or left standing.</summary>
    Evidence,
    /// <summary>The answer.</summary>
    Conclusion,
}

/// <summary>One line of an engine's reasoning, as data.</summary>
/// <param name="Kind">What the line is.</param>
/// <param name="Label">The name of the quantity or observation.</param>
/// <param name="Result">The value with its unit, or the sentence.</param>
/// <param name="Formula">The formula in words or symbols, when there is one.</param>
/// <param name="Substituted">The formula with the numbers filled in.</param>
/// <param name="SourceId">The id of a source in <see cref="Workshop.Sources"/>.</param>
public sealed record ReasonLine(
    ReasonKind Kind, string Label, string Result, string? Formula = null, string? Substituted = null, string? SourceId = null);

/// <summary>Why an engine answered as it did: printable line by line.</summary>
/// <param name="Engine">The engine and verb, for example <c>TorqueSetting.Compute</c>.</param>
/// <param name="Version">The engines' version at the time.</param>
/// <param name="Lines">Inputs, defaults, formulas and the conclusion, in reading order.</param>
/// <param name="WouldChange">What would change the answer.</param>
public sealed record Reasons(string Engine, string Version, IReadOnlyList<ReasonLine> Lines, IReadOnlyList<string> WouldChange)
{
    /// <summary>True when any figure used was a default.</summary>
    public bool UsesDefaults => Lines.Any(l => l.Kind == ReasonKind.Default);
}

/// <summary>A result that can say why. Every engine's result is one; an architecture test holds that.</summary>
public interface IReasoned
{
    /// <summary>The reasoning behind the result.</summary>
    Reasons Reasons { get; }
}

/// <summary>Marks a class whose public methods are engines: pure, and answering with an <see cref="IReasoned"/>.</summary>
[AttributeUsage(AttributeTargets.Class)]
public sealed class EngineAttribute : Attribute;

/// <summary>Builds reasoning in reading order.</summary>
internal sealed class Trail(string engine)
{
    private readonly List<ReasonLine> _lines = [];
    private readonly List<string> _wouldChange = [];

    public Trail Input(string label, string result, string? source = null) => Add(new(ReasonKind.Input, label, result, SourceId: source));
    public Trail Default(string label, string result, string source) => Add(new(ReasonKind.Default, label, result, SourceId: source));
    public Trail Formula(string label, string formula, string substituted, string result, string? source = null) =>
        Add(new(ReasonKind.Formula, label, result, formula, substituted, source));
    public Trail Evidence(string label, string result, string? source = null) => Add(new(ReasonKind.Evidence, label, result, SourceId: source));
    public Trail Conclude(string result, string? source = null) => Add(new(ReasonKind.Conclusion, "So", result, SourceId: source));
    /// <summary>The lines of a result that this one rests on, its conclusion left out.</summary>
    public Trail Take(Reasons of)
    {
        _lines.AddRange(of.Lines.Where(l => l.Kind != ReasonKind.Conclusion));
        return this;
    }

    public Trail WouldChange(string what) { _wouldChange.Add(what); return this; }
    public Reasons Done() => new(engine, EngineVersion.Current, _lines, _wouldChange);
    private Trail Add(ReasonLine line) { _lines.Add(line); return this; }
}
