module ferries.example/harbour

go 1.19
