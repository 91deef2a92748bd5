using System.Globalization;
using System.Text.Json;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.Extensions.Options;
using Microsoft.Net.Http.Headers;
using PatientPawl.Core.Reasoning;
using PatientPawl.Data;

namespace PatientPawl.Web.Jobs;

/// <summary>
/// The views of jobs as bytes, made once a version: everything a view shows follows from the job's events. A client that has that version
/// already is told so.
/// </summary>
public sealed class JobViews(EventStore events, IOptions<JsonOptions> json)
{
    // A board has far fewer cars in hand.
    private const int Most = 64;

    private readonly Latest<byte[]> _made = new(Most);

    // Another program may show the same version in another way.
    private readonly string _program = string.Create(CultureInfo.InvariantCulture, $"{EngineVersion.Current}-{Environment.ProcessId}-{Environment.TickCount64:x}");

    /// <summary>The view of a job, or that it has not changed.</summary>
    public IResult Answer(HttpContext http, Guid id)
    {
        ArgumentNullException.ThrowIfNull(http);
        var version = events.Version(id);
        if (version > 0 && http.Request.Headers.IfNoneMatch.Contains(Tag(id, version)))
        {
            http.Response.Headers.ETag = Tag(id, version);
            return TypedResults.StatusCode(StatusCodes.Status304NotModified);
        }

        var (made, bytes) = Bytes(id, version);
        http.Response.Headers.ETag = Tag(id, made);
        return TypedResults.Bytes(bytes, "application/json; charset=utf-8");
    }

    private (int Version, byte[] Bytes) Bytes(Guid id, int version)
    {
        // One without a version is not there, or no more: practice can be deleted.
        if (version > 0 && _made.Find(id) is { } known && known.Version >= version) return known;
        var state = events.State(id);
        return _made.Keep(id, state.Version, JsonSerializer.SerializeToUtf8Bytes(JobEndpoints.View(id, state, events), json.Value.SerializerOptions));
    }

    private string Tag(Guid id, int version) => $"\"{id:N}-{version.ToString(CultureInfo.InvariantCulture)}-{_program}\"";
}
