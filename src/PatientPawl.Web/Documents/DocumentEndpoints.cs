using System.Text;
using PatientPawl.Core;
using PatientPawl.Core.Jobs;
using PatientPawl.Data;
using PatientPawl.Web.Hosting;

namespace PatientPawl.Web.Documents;

/// <summary>The record as a document: for the page, as PDF and as a file of its own.</summary>
internal static class DocumentEndpoints
{
    public static void MapDocuments(this RouteGroupBuilder api)
    {
        var jobs = api.MapGroup("/jobs/{id:guid}").RequireAuthorization();
        jobs.MapGet("/record/document", (Guid id, EventStore events, Library library, TimeProvider clock) =>
            TypedResults.Ok(Of(id, events, library, clock)));
        jobs.MapGet("/record.pdf", (Guid id, string? paper, HttpContext http, EventStore events, Library library, Data.Photos photos,
            TimeProvider clock) =>
        {
            var size = paper switch
            {
                null or "a4" => PaperSize.A4,
                "letter" => PaperSize.Letter,
                _ => throw new InputException(new InputError("paper", Figure.Shorten(paper), "a4 or letter",
                    "A record is printed on A4 or Letter.")),
            };
            var document = Of(id, events, library, clock);
            return Results.File(RecordPdf.Write(document, photos.Find, Address(http, id), size), "application/pdf",
                $"{File(events, id)}.pdf");
        }).Produces(StatusCodes.Status200OK, contentType: "application/pdf");
        jobs.MapGet("/record.html", (Guid id, HttpContext http, EventStore events, Library library, Data.Photos photos,
            TimeProvider clock) =>
        {
            var html = RecordHtml.Write(Of(id, events, library, clock), photos.Find, Address(http, id));
            return Results.File(Encoding.UTF8.GetBytes(html), "text/html; charset=utf-8", $"{File(events, id)}.html");
        }).Produces(StatusCodes.Status200OK, contentType: "text/html");
        // Back to the job from paper: a camera reads it.
        jobs.MapGet("/address.svg", (Guid id, HttpContext http, EventStore events) =>
        {
            events.State(id);
            return Results.File(Encoding.UTF8.GetBytes(AddressCode.Svg(Address(http, id))), "image/svg+xml");
        }).Produces(StatusCodes.Status200OK, contentType: "image/svg+xml");
        jobs.MapGet("/torques.csv", (Guid id, EventStore events) =>
            Results.File(Encoding.UTF8.GetBytes(TorqueCsv.Write(TorqueRow.Of(events.State(id)))), "text/csv", $"torques-{id}.csv"))
            .Produces(StatusCodes.Status200OK, contentType: "text/csv");
        api.MapPost("/torques/csv/read", (Measuring.CsvText c) => TypedResults.Ok(TorqueCsv.Read(c.Text))).RequireAuthorization();
    }

    private static RecordDocument Of(Guid id, EventStore events, Library library, TimeProvider clock)
    {
        var record = JobRecord.Of(events.State(id));
        var (check, copy) = (events.Verify(id), events.Imported(id));
        var workshop = library.WorkshopName;
        return RecordDocument.Of(record, new(workshop, events.Number(id), check.Verified, check.Says, copy?.By, copy?.At),
            clock.LocalTimeZone);
    }

    private static string Address(HttpContext http, Guid id) => $"{http.Request.Scheme}://{http.Request.Host}/jobs/{id}";

    private static string File(EventStore events, Guid id) => $"record-{Figure.Of(events.Number(id))}";
}
