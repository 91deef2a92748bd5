namespace PatientPawl.Core.Electric.Link;

/// <summary>What the control unit says of the brake.</summary>
public enum UnitState
{
    /// <summary>Released.</summary>
    Released,
    /// <summary>Being applied.</summary>
    Applying,
    /// <summary>Applied.</summary>
    Applied,
    /// <summary>Being released, or driven back into service.</summary>
    Releasing,
    /// <summary>In its service position.</summary>
    Service,
    /// <summary>Leaving its service position.</summary>
    Closing,
    /// <summary>It does not know where the spindles stand.</summary>
    Fault,
}

/// <summary>What the unit can be told to do.</summary>
public enum Routine
{
    /// <summary>Drive both spindles back to their stops.</summary>
    ServiceIn = 0x0201,
    /// <summary>Drive both out onto the pads and let go again.</summary>
    ServiceOut = 0x0202,
    /// <summary>Apply and release once, and compare.</summary>
    AssemblyCheck = 0x0203,
    /// <summary>Release.</summary>
    Release = 0x0204,
    /// <summary>Apply.</summary>
    Apply = 0x0205,
}

/// <summary>How one side of a routine stands.</summary>
public enum SideEnd
{
    /// <summary>Not moved.</summary>
    None,
    /// <summary>Moving.</summary>
    Moving,
    /// <summary>Clamped to the cut-off.</summary>
    Clamped,
    /// <summary>Released.</summary>
    Released,
    /// <summary>At its back stop.</summary>
    AtBackStop,
    /// <summary>Current on and no motion.</summary>
    NoMotion,
    /// <summary>Out of travel with nothing clamped.</summary>
    TravelLimit,
    /// <summary>Out of time.</summary>
    OutOfTime,
    /// <summary>No current.</summary>
    Open,
    /// <summary>Stopped on request.</summary>
    Stopped,
    /// <summary>Too little voltage.</summary>
    LowVolts,
    /// <summary>It was there already.</summary>
    Already,
}

/// <summary>How a routine stands.</summary>
public enum RoutineStatus
{
    /// <summary>Never started since the unit woke.</summary>
    NeverStarted = 0,
    /// <summary>Running.</summary>
    Running = 1,
    /// <summary>Done.</summary>
    Done = 2,
    /// <summary>Stopped on request.</summary>
    Stopped = 3,
    /// <summary>Ended without reaching what it was for.</summary>
    Failed = 4,
}

/// <summary>Why the unit does not start a routine, as ISO 14229-1 numbers it (from memory).</summary>
public enum Refusal
{
    /// <summary>Busy with another.</summary>
    Busy = 0x21,
    /// <summary>Conditions not correct.</summary>
    ConditionsNotCorrect = 0x22,
    /// <summary>Out of sequence: nothing to stop, nothing to ask about.</summary>
    Sequence = 0x24,
    /// <summary>A failure prevents it.</summary>
    FailurePrevents = 0x26,
    /// <summary>The car moves.</summary>
    SpeedTooHigh = 0x88,
    /// <summary>The voltage is under the floor.</summary>
    VoltsTooLow = 0x93,
}
