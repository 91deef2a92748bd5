using PatientPawl.Core.Electric.Link;

namespace PatientPawl.Core.Electric;

/// <summary>How a unit answered about a routine.</summary>
/// <param name="Status">How it stands; null where it was refused.</param>
/// <param name="Left">How the left side, or the only motor, stands.</param>
/// <param name="Right">How the right side stands.</param>
/// <param name="Refused">Why it was refused, as ISO 14229-1 numbers it; null where it was not.</param>
public sealed record RoutineAnswer(RoutineStatus? Status, SideEnd Left, SideEnd Right, int? Refused)
{
    /// <summary>A refusal.</summary>
    public static RoutineAnswer No(int code) => new(null, SideEnd.None, SideEnd.None, code);
}

/// <summary>Both currents at one moment, hundredths of an ampere, as the unit kept them.</summary>
/// <param name="Left">Left, or the only motor.</param>
/// <param name="Right">Right.</param>
public readonly record struct KeptSample(int Left, int Right);

/// <summary>One message that went over the link.</summary>
/// <param name="At">When.</param>
/// <param name="Sent">True from the tool, false from the car.</param>
/// <param name="Hex">Its bytes.</param>
/// <param name="Words">What it means.</param>
/// <param name="IsState">True where it only asks, or tells, how things stand: it comes twenty times a second.</param>
public sealed record Exchange(DateTimeOffset At, bool Sent, string Hex, string Words, bool IsState);

/// <summary>The link is not there, or has gone. What was begun in the car goes on: nobody knows how it stands.</summary>
public sealed class LinkLostException(string message, Exception? inner = null) : Exception(message, inner);

/// <summary>
/// A scan tool on the car: one request at a time, each of them cancellable. A routine answers at once and is asked about until it has ended. A lost
/// answer is never a reason to start again: ask for the result.
/// </summary>
public interface IScanTool : IAsyncDisposable
{
    /// <summary>Where it is reached, in words.</summary>
    string Name { get; }

    /// <summary>Everything the unit says of itself.</summary>
    /// <exception cref="LinkLostException">The link has gone.</exception>
    Task<LiveState> LiveAsync(CancellationToken cancellation);

    /// <summary>Starts a routine.</summary>
    /// <exception cref="LinkLostException">The link has gone; the routine may run.</exception>
    Task<RoutineAnswer> StartAsync(Routine routine, CancellationToken cancellation);

    /// <summary>How a routine stands.</summary>
    /// <exception cref="LinkLostException">The link has gone.</exception>
    Task<RoutineAnswer> ResultAsync(Routine routine, CancellationToken cancellation);

    /// <summary>Asks the unit to stop. It is not a safety device: until it has answered, the motor may still be running.</summary>
    /// <exception cref="LinkLostException">The link has gone; the routine may run.</exception>
    Task<RoutineAnswer> StopAsync(Routine routine, CancellationToken cancellation);

    /// <summary>The stored codes, by their letters.</summary>
    /// <exception cref="LinkLostException">The link has gone.</exception>
    Task<IReadOnlyList<string>> CodesAsync(CancellationToken cancellation);

    /// <summary>Clears the codes. A cause that stands sets its code again at its next test.</summary>
    /// <exception cref="LinkLostException">The link has gone.</exception>
    Task ClearCodesAsync(CancellationToken cancellation);

    /// <summary>The currents of the last actuation, 500 a second.</summary>
    /// <exception cref="LinkLostException">The link has gone.</exception>
    Task<IReadOnlyList<KeptSample>> SamplesAsync(CancellationToken cancellation);
}
