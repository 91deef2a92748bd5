using Microsoft.AspNetCore.Mvc;
using PatientPawl.Core;
using PatientPawl.Core.Jobs;
using PatientPawl.Data;
using PatientPawl.Web.Jobs;

namespace PatientPawl.Web.Photos;

/// <summary>A photo as it is sent. It never waits for a version: it is a fact.</summary>
/// <param name="EventId">Made by the client.</param>
/// <param name="OccurredAt">The client's clock.</param>
/// <param name="Side">The corner that it shows; null for the car.</param>
/// <param name="Of">The report that it belongs to; null when it stands by itself.</param>
/// <param name="Caption">What it shows, 1 to 200 letters.</param>
/// <param name="Content">JPEG, PNG or WebP, in base64.</param>
public sealed record PhotoCommand(Guid EventId, DateTimeOffset OccurredAt, Side? Side, Guid? Of, string Caption, byte[] Content) : ICommand;

internal static class PhotoEndpoints
{
    // A camera's picture, as letters.
    private const int MostSentBytes = 24 * 1024 * 1024;

    public static void MapPhotos(this RouteGroupBuilder api)
    {
        var photos = api.MapGroup("/jobs/{id:guid}/photos").RequireAuthorization();
        photos.MapPost("/", async (Guid id, PhotoCommand c, HttpContext http, JobCommands commands, EventStore events) =>
        {
            events.State(id);
            var (picture, width, height) = PhotoEncoder.Encode(c.Content);
            return TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.Keep(s, new(picture.Sha256, width, height, c.Side, c.Of, c.Caption)), picture));
        }).WithMetadata(new RequestSizeLimitAttribute(MostSentBytes));
        // By its hash a picture is for ever the same; and only whoever may look at the job sees it.
        photos.MapGet("/{sha256}", (Guid id, string sha256, EventStore events, Data.Photos kept) =>
            events.State(id).Log.Any(e => e.Event is PhotoTaken p && p.Sha256 == sha256) && kept.Find(sha256) is { } content
                ? Results.File(content, JobFiles.PhotoType) : throw new UnknownJobException(id)).Produces(StatusCodes.Status200OK, contentType: JobFiles.PhotoType);
    }
}
