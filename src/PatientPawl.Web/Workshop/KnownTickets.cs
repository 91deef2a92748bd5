using System.Collections.Concurrent;
using Microsoft.AspNetCore.Authentication;

namespace PatientPawl.Web.Workshop;

/// <summary>
/// Reads a sign-in cookie once: a tablet sends the same one with every tap, and taking it apart cost as much as storing the tap. What was
/// read stands for exactly those bytes; whether it has run out, and whether its session still stands, is asked every time all the same.
/// </summary>
/// <param name="sealing">Seals and opens cookies.</param>
public sealed class KnownTickets(ISecureDataFormat<AuthenticationTicket> sealing) : ISecureDataFormat<AuthenticationTicket>
{
    // A workshop has tens of devices; who sends made-up cookies fills nothing, for only those that could be opened are kept.
    private const int Most = 1000;

    private readonly ConcurrentDictionary<(string Cookie, string? Purpose), AuthenticationTicket> _read = new();

    public string Protect(AuthenticationTicket data) => sealing.Protect(data);

    public string Protect(AuthenticationTicket data, string? purpose) => sealing.Protect(data, purpose);

    public AuthenticationTicket? Unprotect(string? protectedText) => Unprotect(protectedText, null);

    public AuthenticationTicket? Unprotect(string? protectedText, string? purpose)
    {
        if (protectedText is null) return null;
        // Each caller has a copy of its own: what one does to it, another never sees.
        if (_read.TryGetValue((protectedText, purpose), out var known)) return known.Clone();
        if ((purpose is null ? sealing.Unprotect(protectedText) : sealing.Unprotect(protectedText, purpose)) is not { } ticket) return null;
        if (_read.Count >= Most) _read.Clear();
        _read[(protectedText, purpose)] = ticket;
        return ticket.Clone();
    }
}
