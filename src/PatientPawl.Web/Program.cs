using PatientPawl.Web.Hosting;

var options = StartOptions.Read(args, Console.Error);
if (options is null) return 2;
var app = PawlApp.Build(options, args);
return await PawlApp.RunAsync(app, options, Console.Out, Console.Error);
