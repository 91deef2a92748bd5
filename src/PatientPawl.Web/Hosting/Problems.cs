using System.Diagnostics;
using System.Text.Json;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Mvc;
using PatientPawl.Core;
using PatientPawl.Core.Jobs;
using PatientPawl.Data;
using PatientPawl.Web.Jobs;
using PatientPawl.Web.Workshop;

namespace PatientPawl.Web.Hosting;

/// <summary>Problem details (RFC 9457) in the product's words.</summary>
public static class Problems
{
    public static Task Write(HttpContext context, int status, string title) =>
        Results.Problem(title: title, statusCode: status).ExecuteAsync(context);
}

/// <summary>Turns what the core and the store refuse into problem details. Nothing else becomes an answer with a trace.</summary>
public sealed partial class ProblemHandler(ILogger<ProblemHandler> log) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(HttpContext httpContext, Exception exception, CancellationToken cancellationToken)
    {
        ArgumentNullException.ThrowIfNull(httpContext);
        var problem = exception switch
        {
            InputException e => Input(e.Errors),
            NotAllowedException e => Make(StatusCodes.Status409Conflict, e.Message, ("reason", "not-allowed"), ("because", e.Because), ("interlocks", e.Interlocks)),
            StaleVersionException e => Make(StatusCodes.Status409Conflict, "The job has moved on since you looked.", ("reason", "stale-version"), ("version", e.Current), ("mayFollow", e.MayFollow),
                ("since", e.Since.Select(s => new ChangeSince(s.Seq, s.Technician, s.Event.Words())).ToArray())),
            AlreadyOpenException e => Make(StatusCodes.Status409Conflict, e.Message, ("reason", "already-open"), ("because", e.Because), ("open", e.Open)),
            JobIsHereException e => Make(StatusCodes.Status409Conflict, e.Message, ("reason", "job-is-here"), ("jobId", e.JobId)),
            AnotherPersonException e => Make(StatusCodes.Status409Conflict, e.Message, ("reason", "another-person")),
            PinAgainException e => Make(StatusCodes.Status401Unauthorized, e.Message, ("reason", "pin-again")),
            CopyException e => Make(StatusCodes.Status409Conflict, e.Message, ("reason", "copy")),
            ReusedIdException e => Make(StatusCodes.Status409Conflict, e.Message, ("reason", "reused-id")),
            UnknownJobException e => Make(StatusCodes.Status404NotFound, e.Message, ("reason", "unknown-job")),
            BadHttpRequestException { StatusCode: StatusCodes.Status413PayloadTooLarge } => Make(StatusCodes.Status413PayloadTooLarge, TooLarge(httpContext)),
            BadHttpRequestException { InnerException: JsonException json } => Unreadable(json),
            JsonException json => Unreadable(json),
            // The framework has no status for a charset that nobody knows.
            InvalidOperationException e when e.Message.Contains("charset", StringComparison.OrdinalIgnoreCase) => Make(StatusCodes.Status415UnsupportedMediaType, "Send JSON as UTF-8: that character set is not known."),
            BadHttpRequestException e => Make(e.StatusCode, Plain(e.Message)),
            DamagedJobException e => Make(StatusCodes.Status500InternalServerError, e.Message, ("reason", "damaged"), ("jobId", e.JobId), ("seq", e.Seq)),
            TooManySlipsException e => Make(StatusCodes.Status429TooManyRequests, e.Message, ("reason", "wait"), ("seconds", Math.Ceiling(e.Wait.TotalSeconds))),
            _ when StorageTrouble.Says(exception) is { } trouble => Make(StatusCodes.Status507InsufficientStorage, trouble, ("reason", "storage")),
            _ => Make(StatusCodes.Status500InternalServerError, "That failed on our side. Nothing was stored; what you typed stays here."),
        };
        if (problem.Status >= StatusCodes.Status500InternalServerError)
        {
            // The page shows the id, so that what a person reads out can be found in the log. An exception that is answered here is logged by nobody else.
            var trace = Activity.Current?.Id ?? httpContext.TraceIdentifier;
            problem.Extensions["traceId"] = trace;
            Failed(log, exception, httpContext.Request.Method, httpContext.Request.Path, trace);
        }

        httpContext.Response.StatusCode = problem.Status!.Value;
        await Results.Problem(problem).ExecuteAsync(httpContext);
        return true;
    }

    [LoggerMessage(EventId = 500, Level = LogLevel.Error, Message = "{Method} {Path} failed, trace {TraceId}")]
    private static partial void Failed(ILogger logger, Exception exception, string method, string path, string traceId);

    private static ProblemDetails Input(IReadOnlyList<InputError> errors) =>
        Make(StatusCodes.Status422UnprocessableEntity, errors[0].Message, ("reason", "input"), ("errors", errors));

    private static string TooLarge(HttpContext context) =>
        context.Features.Get<Microsoft.AspNetCore.Http.Features.IHttpMaxRequestBodySizeFeature>()?.MaxRequestBodySize is { } most ? $"That is larger than {most / (1024 * 1024)} MB." : "That is too large.";

    private static ProblemDetails Unreadable(JsonException json)
    {
        var field = string.IsNullOrEmpty(json.Path) ? "$" : Figure.Shorten(json.Path);
        // The parser's own words name types and positions; the technician needs the field.
        var says = json.Message.Contains("could not be mapped", StringComparison.Ordinal) ? "This field is not one that is understood here; units stand in the name, as in thicknessMm."
            : json.Message.Contains("missing required", StringComparison.Ordinal) ? "A field is missing: " + Missing(json.Message)
            : field == "$" ? "This is not readable JSON." : "This value cannot be read here: wrong kind, wrong word, or not a whole number where things are counted.";
        return Make(StatusCodes.Status400BadRequest, $"{field}: {says}", ("reason", "unreadable"), ("errors", new[] { new InputError(field, "as sent", "see the OpenAPI document", says) }));
    }

    private static string Missing(string message)
    {
        var at = message.LastIndexOf("including:", StringComparison.Ordinal);
        return at < 0 ? "see the OpenAPI document." : Figure.Shorten(message[(at + 10)..].Trim());
    }

    private static string Plain(string message) => message.StartsWith("Failed to bind parameter", StringComparison.Ordinal) ? "A value in the address cannot be read." : "The request cannot be read.";

    private static ProblemDetails Make(int status, string title, params (string Key, object? Value)[] more)
    {
        var problem = new ProblemDetails { Status = status, Title = title };
        foreach (var (key, value) in more) problem.Extensions[key] = value;
        return problem;
    }
}

/// <summary>One thing that changed since the client last looked.</summary>
public sealed record ChangeSince(int Seq, string By, string What);
