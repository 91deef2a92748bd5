using PatientPawl.Core.Electric.Link;

namespace PatientPawl.Core.Electric;

/// <summary>What routines, states and ends are called.</summary>
public static class Words
{
    /// <summary>A routine, as it is asked for.</summary>
    public static string Of(Routine routine) => routine switch
    {
        Routine.ServiceIn => "into service",
        Routine.ServiceOut => "close",
        Routine.AssemblyCheck => "assembly check",
        Routine.Release => "release",
        Routine.Apply => "apply",
        _ => throw new ArgumentOutOfRangeException(nameof(routine), routine, "No such routine."),
    };

    /// <summary>The brake, as the unit has it.</summary>
    public static string Of(UnitState state) => state switch
    {
        UnitState.Released => "Released",
        UnitState.Applying => "Being applied",
        UnitState.Applied => "Applied",
        UnitState.Releasing => "Going back",
        UnitState.Service => "In service",
        UnitState.Closing => "Closing",
        UnitState.Fault => "Not known to the unit",
        _ => throw new ArgumentOutOfRangeException(nameof(state), state, "No such state."),
    };

    /// <summary>How a side ended.</summary>
    public static string Of(SideEnd end) => end switch
    {
        SideEnd.None => "not moved",
        SideEnd.Moving => "moving",
        SideEnd.Clamped => "clamped to the cut-off",
        SideEnd.Released => "released",
        SideEnd.AtBackStop => "at the back stop",
        SideEnd.NoMotion => "current on, no motion",
        SideEnd.TravelLimit => "out of travel, nothing clamped",
        SideEnd.OutOfTime => "end not found",
        SideEnd.Open => "no current",
        SideEnd.Stopped => "stopped",
        SideEnd.LowVolts => "too little voltage",
        SideEnd.Already => "there already",
        _ => throw new ArgumentOutOfRangeException(nameof(end), end, "No such end."),
    };

    /// <summary>A code that was read out: its letters and, where it is one of the stand-in car's, its text.</summary>
    public static string Code(string letters) => TroubleCodes.Find(letters) is { } known ? $"{letters} {known.Text}" : letters;

    /// <summary>How a routine ended, in a sentence.</summary>
    public static string Ended(RoutineAnswer end)
    {
        ArgumentNullException.ThrowIfNull(end);
        if (end.Refused is { } why) return $"Refused: {CarLink.Refused(why)}.";
        var stopped = end.Status == RoutineStatus.Stopped ? "Stopped by hand. " : "";
        return stopped + (end.Left == end.Right ? $"Both {Of(end.Left)}." : $"Left {Of(end.Left)}, right {Of(end.Right)}.");
    }
}
