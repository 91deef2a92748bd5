using PatientPawl.Core.Planning;

namespace PatientPawl.Core.Jobs;

/// <summary>Steps whose part is waited for: what is not here is not fitted.</summary>
internal static class WaitedFor
{
    private static readonly char[] Between = [' ', ',', ':', '-', '/', '.'];

    /// <summary>True where a step fits what the job waits for, by the words it was ordered in.</summary>
    public static bool Holds(JobState state, StepKey step)
    {
        if (state.Awaits is not { } awaits) return false;
        var type = StepCatalogue.Find(step.StepId)!;
        // Whether the right one has come is what the waiting is about.
        if (type.Id == "right-part") return true;
        var ordered = Nouns(awaits.What).ToHashSet(StringComparer.OrdinalIgnoreCase);
        return type.PartsIn(state.Setup).Any(part => ordered.Contains(Head(part)));
    }

    // What a part is called by: pads of "new pads", hose of "brake hose".
    private static string Head(string part) => Nouns(part.Split(':', ',')[0]).LastOrDefault() ?? "";

    // One and several are the same part.
    private static IEnumerable<string> Nouns(string words) => words.Split(Between, StringSplitOptions.RemoveEmptyEntries).Select(w => w.TrimEnd('s'));
}
