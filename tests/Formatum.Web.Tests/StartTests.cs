using System.Diagnostics;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Formatum.Testing;
using Microsoft.Data.Sqlite;

namespace Formatum.Web.Tests;

/// <summary>How the program starts, and how it says that it will not.</summary>
public sealed class StartTests
{
    private static (int Code, string Out, string Error) Run(params string[] options) => RunCommand(["dotnet", TestServer.Program, .. options]);

    private static (int Code, string Out, string Error) RunCommand(string[] command)
    {
        var start = new ProcessStartInfo(command[0], command[1..]) { RedirectStandardOutput = true, RedirectStandardError = true };
        using var process = Process.Start(start)!;
        var output = process.StandardOutput.ReadToEndAsync();
        string error = process.StandardError.ReadToEnd();
        process.WaitForExit();
        return (process.ExitCode, output.Result, error);
    }

    [Theory]
    [InlineData("There is no option --prot", "--prot", "8080")]
    [InlineData("--port wants a value", "--port")]
    [InlineData("--port many: give a whole number", "--port", "many")]
    [InlineData("lets others reach this server", "--listen", "0.0.0.0")]
    [InlineData("--hosts * is not the name of a host", "--hosts", "*")]
    [InlineData("--public-url", "--public-url", "https://a.example/below")]
    [InlineData("The settings file", "--settings", "/nowhere/formatum.json")]
    [InlineData("cannot be written to", "--data", "/proc/formatum")]
    public void What_cannot_be_used_is_told_in_one_line_and_exit_code_2(string words, params string[] options)
    {
        var (code, _, error) = Run(options);
        code.ShouldBe(2);
        error.ShouldContain(words);
        error.Trim().Split('\n').Length.ShouldBe(1);
    }

    [Fact]
    public async Task A_folder_that_cannot_be_written_to_is_told_and_stays_as_it_is()
    {
        Assert.SkipUnless(TestServer.CanHaveDiskOfItsOwn(), "This machine lets nobody mount anything.");
        using var server = new TestServer();
        int id = await server.NewPublicationAsync();
        server.Kill();
        var (code, _, error) = RunCommand(TestServer.OnReadOnly(server.DataFolder, ["dotnet", TestServer.Program, "--data", server.DataFolder, "--port", "0"]));
        code.ShouldBe(2);
        error.ShouldContain("cannot be written to");
        error.Trim().Split('\n').Length.ShouldBe(1);
        server.StartAgain();
        (await server.GetAsync($"/api/publications/{id}")).GetProperty("name").GetString().ShouldBe("Test");
    }

    [Fact]
    public void Help_tells_every_option()
    {
        var (code, output, _) = Run("--help");
        code.ShouldBe(0);
        foreach (string option in new[] { "--data DIR", "--backup DIR", "--open", "FORMATUM_PORT" }) output.ShouldContain(option);
    }

    [Fact]
    public async Task A_second_server_on_the_folder_says_who_holds_it_and_the_first_goes_on()
    {
        using var server = new TestServer();
        int id = await server.NewPublicationAsync();
        var (code, _, error) = Run("--data", server.DataFolder, "--port", "0");
        code.ShouldBe(2);
        error.ShouldContain("is in use by the server on port");
        await server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 0, y = 0, width = 10, height = 10 });
        server.Kill();
        server.StartAgain();
        (await server.GetAsync($"/api/publications/{id}")).GetProperty("frames").GetArrayLength().ShouldBe(1);
    }

    [Fact]
    public void Settings_come_from_a_file_and_what_it_does_not_know_is_refused()
    {
        using var folder = new TempFolder();
        File.WriteAllText(folder["formatum.json"], """{ "pictures": ["/nowhere/at/all"] }""");
        Run("--data", folder.Path).Error.ShouldContain("--pictures /nowhere/at/all: there is no such folder");
        File.WriteAllText(folder["formatum.json"], """{ "colour": "blue" }""");
        Run("--data", folder.Path).Error.ShouldContain("\"colour\", which is no setting");
    }

    [Fact]
    public async Task A_backup_made_while_the_server_runs_is_the_same_publication_at_another_place()
    {
        using var server = new TestServer();
        int id = await server.NewPublicationAsync("Kept");
        using var folder = new TempFolder();
        string picture = TestPictures.Save(TestPictures.Quarters(60, 40), folder["a.jpg"]);
        int image = (await server.UploadAsync(id, ("a.jpg", File.ReadAllBytes(picture))))[0].GetProperty("id").GetInt32();
        await server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 0, y = 0, width = 90, height = 60, imageId = image });
        Run("--data", server.DataFolder, "--backup", folder["copy"]).Code.ShouldBe(0);
        // What comes after it is not in it; and a second copy brings only what is new.
        await server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 0, y = 0, width = 9, height = 9 });
        string before = (await server.Client.GetStringAsync($"/api/publications/{id}"));
        Run("--data", server.DataFolder, "--backup", folder["copy"]).Out.ShouldContain("1 files were copied");
        server.Kill();

        Run("--data", server.DataFolder, "--restore", folder["copy"]).Error.ShouldContain("is not replaced");
        foreach (string kept in new[] { "formatum.db", "formatum.db-wal", "formatum.db-shm" }) File.Delete(Path.Combine(server.DataFolder, kept));
        Directory.Delete(Path.Combine(server.DataFolder, "pictures"), recursive: true);
        using var elsewhere = new TestServer();
        elsewhere.Kill();
        File.Delete(Path.Combine(elsewhere.DataFolder, "formatum.db"));
        var (code, output, error) = Run("--data", elsewhere.DataFolder, "--restore", folder["copy"]);
        code.ShouldBe(0, output + error);
        elsewhere.StartAgain();
        (await elsewhere.Client.GetStringAsync($"/api/publications/{id}")).ShouldBe(before);
        using var original = await elsewhere.Client.GetAsync($"/api/publications/{id}/images/{image}/original");
        (await original.Content.ReadAsByteArrayAsync()).ShouldBe(File.ReadAllBytes(picture));
        (await elsewhere.PostAsync($"/api/publications/{id}/undo", new { })).GetProperty("done").GetString().ShouldBe("Undo Make placeholder");
    }

    [Fact]
    public async Task One_publication_that_cannot_be_read_is_told_on_the_shelf_and_the_others_go_on()
    {
        using var server = new TestServer();
        int broken = await server.NewPublicationAsync("Broken"), whole = await server.NewPublicationAsync("Whole");
        server.Kill();
        using (var connection = new SqliteConnection($"Data Source={server.DataFolder}/formatum.db;Pooling=False"))
        {
            connection.Open();
            using var command = connection.CreateCommand();
            command.CommandText = $"UPDATE \"Parts\" SET \"Json\" = '{{\"rubbish\":1}}' WHERE \"PublicationId\" = {broken} AND \"Kind\" = 1";
            command.ExecuteNonQuery();
        }
        server.StartAgain();
        string shelf = await server.Client.GetStringAsync("/");
        shelf.ShouldContain("cannot be read as it is kept");
        shelf.ShouldContain("Whole");
        (await server.GetAsync($"/api/publications/{whole}")).GetProperty("name").GetString().ShouldBe("Whole");
        using var answer = await server.Client.GetAsync($"/api/publications/{broken}");
        answer.StatusCode.ShouldBe(HttpStatusCode.InternalServerError);
        (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("title").GetString().ShouldBe("This publication cannot be read");
    }
}
